import { queryOptions, useMutation, useQueryClient, type QueryClient } from "@tanstack/react-query";
import { answer, api, Refused, type Schemas } from "../api/client";
import { store, stored } from "../storage/stored";
import { SESSION } from "./session";

type Person = Schemas["StationPerson"];

/** Who may be at a station. */
export const STATION_PEOPLE = queryOptions({
  queryKey: ["station people"],
  staleTime: 60_000,
  queryFn: () => answer(api.GET("/api/v1/session/people")),
});

/** Who this browser was told is at it; the server may not have heard of it yet. */
const HERE = "ironpeel.here";
export const isHere = (id: string | null | undefined) =>
  Boolean(id) && stored<{ person: string | null }>(HERE)?.person === id;

/** Shows somebody as being at this station, or nobody, whether or not the server knows. */
function show(queries: QueryClient, person: Person | null) {
  store(HERE, { person: person?.id ?? null });
  queries.setQueryData<Schemas["SessionView"]>(
    SESSION.queryKey,
    (now) =>
      now && {
        ...now,
        person: person && { ...person, email: "" },
        may: person ? ["read", "record"] : ["read"],
      },
  );
}

/**
 * Says who is at this station. Without a connection nobody can check the PIN: they may go on, and
 * what they record is sent as unverified.
 */
export function useEnter() {
  const queries = useQueryClient();
  return useMutation({
    networkMode: "always",
    mutationFn: async ({ person, pin }: { person: Person; pin: string }) => {
      const body = { person_id: person.id, pin };
      try {
        await answer(api.PUT("/api/v1/session/person", { body }));
      } catch (error) {
        if (error instanceof Refused) throw error;
      }
    },
    onSuccess: (_, { person }) => show(queries, person),
  });
}

/** Nobody is at this station any more. */
export function useLeave() {
  const queries = useQueryClient();
  return useMutation({
    networkMode: "always",
    mutationFn: () => answer(api.DELETE("/api/v1/session/person")),
    onMutate: () => show(queries, null),
  });
}

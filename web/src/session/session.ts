import { queryOptions, useQuery } from "@tanstack/react-query";
import type { Sender } from "../api/outbox";
import { answer, api, isFinal, Refused, type Schemas } from "../api/client";
import { forgetRuns } from "../api/keptAnswers";
import { store, stored } from "../storage/stored";

const KEPT = "ironpeel.session";

/** Who is signed in, and what they may do. */
export const SESSION = queryOptions({
  queryKey: ["session"],
  staleTime: 60_000,
  // What is queued waits for it.
  refetchInterval: ({ state }) => (state.status === "error" ? 5000 : false),
  queryFn: async () => {
    try {
      const session = await answer(api.GET("/api/v1/session"));
      // Nobody is: what was kept of whoever was is let go of.
      if (!session.person && !session.station) void forgetRuns();
      store(KEPT, session.person || session.station ? session : undefined);
      return session;
    } catch (error) {
      // Without a connection whoever was here is still here.
      const kept = isFinal(error) ? undefined : stored<Schemas["SessionView"]>(KEPT);
      if (!kept) throw error;
      return kept;
    }
  },
});

/** Nobody is. */
export const NOBODY: Schemas["SessionView"] = { person: null, roles: [], may: [], station: null };

/** Who sends what was queued here. */
export const senderOf = (session: Schemas["SessionView"] | undefined): Sender => ({
  records: session?.may.includes("record") ?? false,
  ...(session?.person?.id && { person: session.person.id }),
  ...(session?.station && { station: session.station.id }),
});

export const useSession = () => useQuery(SESSION).data;

/** Whether whoever is signed in may do this; nobody is told no before it is known. */
export function useMay(access: Schemas["Access"]): boolean {
  const session = useSession();
  return session?.may.includes(access) ?? true;
}

/** Whether an answer says that nobody is signed in any more. */
export const isSignedOut = (error: unknown) =>
  error instanceof Refused && error.problem.status === 401;

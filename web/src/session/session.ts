import { queryOptions, useQuery, type QueryClient } from "@tanstack/react-query";
import type { Sender } from "../api/outbox";
import { answer, api, isFinal, Refused, type Schemas } from "../api/client";
import { forgetRuns } from "../api/keptAnswers";
import { store, stored } from "../storage/stored";

const KEPT = "ironpeel.session";

/** Kept for when there is no connection; where nobody is, what was kept of whoever was is let go of. */
function keep(session: Schemas["SessionView"]) {
  const anybody = session.person ?? session.station;
  if (!anybody) void forgetRuns();
  store(KEPT, anybody ? session : undefined);
}

/** Who is signed in, and what they may do. */
export const SESSION = queryOptions({
  queryKey: ["session"],
  staleTime: 60_000,
  // What is queued waits for it.
  refetchInterval: ({ state }) => (state.status === "error" ? 5000 : false),
  queryFn: async () => {
    try {
      const session = await answer(api.GET("/api/v1/session"));
      keep(session);
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

/** Who is signed in from now on, whatever was asked before it is still to be answered. */
export async function signedInNow(queries: QueryClient, session: Schemas["SessionView"]) {
  await queries.cancelQueries({ queryKey: SESSION.queryKey });
  keep(session);
  queries.setQueryData(SESSION.queryKey, session);
}

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

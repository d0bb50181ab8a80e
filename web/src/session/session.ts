import { queryOptions, useQuery } from "@tanstack/react-query";
import { answer, api, Refused, type Schemas } from "../api/client";

/** Who is signed in, and what they may do. */
export const SESSION = queryOptions({
  queryKey: ["session"],
  staleTime: 60_000,
  // What is queued waits for it.
  refetchInterval: ({ state }) => (state.status === "error" ? 5000 : false),
  queryFn: () => answer(api.GET("/api/v1/session")),
});

/** Nobody is. */
export const NOBODY: Schemas["SessionView"] = { person: null, roles: [], may: [] };

export const useSession = () => useQuery(SESSION).data;

/** Whether whoever is signed in may do this; nobody is told no before it is known. */
export function useMay(access: Schemas["Access"]): boolean {
  const session = useSession();
  return session?.may.includes(access) ?? true;
}

/** Whether an answer says that nobody is signed in any more. */
export const isSignedOut = (error: unknown) =>
  error instanceof Refused && error.problem.status === 401;

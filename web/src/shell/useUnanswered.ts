import { notifyManager, useQueryClient, type Query } from "@tanstack/react-query";
import { useCallback, useEffect, useSyncExternalStore } from "react";
import { isFinal, Refused } from "../api/client";

const AGAIN_MS = 5000;

/** Asked for what is on screen, and given up: a refusal is the page's to tell. */
const isUnanswered = ({ state }: Query) => state.status === "error" && !isFinal(state.error);

/** Whether an answer may come where nothing but time passes: not from a fault of the server's own. */
export const mayCome = (error: unknown) =>
  !(error instanceof Refused && error.problem.status === 500);

/** Why something on screen could not be fetched; asked again when the server can answer. */
export function useUnanswered(): Error | null {
  const queries = useQueryClient();
  const cache = queries.getQueryCache();
  const error = useSyncExternalStore(
    useCallback((listen) => cache.subscribe(notifyManager.batchCalls(listen)), [cache]),
    () => cache.findAll({ type: "active", predicate: isUnanswered })[0]?.state.error ?? null,
  );
  const awaited = error !== null && mayCome(error);
  useEffect(() => {
    if (!awaited) return;
    const predicate = (query: Query) => isUnanswered(query) && mayCome(query.state.error);
    const again = setInterval(() => {
      fetch("/readyz")
        .then(({ ok }) => (ok ? queries.refetchQueries({ type: "active", predicate }) : undefined))
        .catch(() => undefined);
    }, AGAIN_MS);
    return () => clearInterval(again);
  }, [awaited, queries]);
  return error;
}

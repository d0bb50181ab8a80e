import { useCallback, useRef, useState } from "react";
import { store, stored } from "./stored";

/**
 * What is being typed or asked, kept in the browser until it is recorded or let go; edits build on
 * the newest of it. It begins as `begin` makes of what was kept, if anything was.
 */
export function useKept<T extends object>(key: string, begin: (kept?: Partial<T>) => T) {
  const [value, show] = useState<T>(() => begin(stored<Partial<T>>(key)));
  const newest = useRef(value);
  const put = useCallback((next: T) => {
    newest.current = next;
    show(next);
  }, []);
  const set = useCallback(
    (change: Partial<T> | ((now: T) => Partial<T>)) => {
      const now = newest.current;
      const next = { ...now, ...(typeof change === "function" ? change(now) : change) };
      put(next);
      store(key, next);
    },
    [key, put],
  );
  /** Lets it go, unless it was changed since it stood like this. */
  const forget = useCallback(
    (as?: T) => {
      if (as && newest.current !== as) return;
      store(key, undefined);
      put(begin());
    },
    [key, put, begin],
  );
  return [value, set, forget] as const;
}

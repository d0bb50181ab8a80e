import { useCallback, useEffect, useMemo } from "react";
import { store, stored } from "../storage/stored";
import { useScenario } from "./ScenarioProvider";

/** How what a view is asked stands in the address, beside the scenario. */
export interface InAddress<T> {
  /** None where nothing of it stands there. */
  read: (search: URLSearchParams) => Partial<T> | undefined;
  write: (value: T) => Record<string, string | null>;
}

/**
 * What a view is asked: it stands in the address, so that a colleague sees the same, and what was
 * asked last is kept in the browser for a visit without. It begins as `begin` makes of either.
 */
export function useAddressed<T extends object>(
  key: string,
  { read, write }: InAddress<T>,
  begin: (kept?: Partial<T>) => T,
) {
  const { search, show } = useScenario();
  const here = useMemo(() => read(new URLSearchParams(search)), [read, search]);
  const value = useMemo(() => begin(here ?? stored<Partial<T>>(key)), [begin, here, key]);
  const stands = here !== undefined;
  useEffect(() => {
    if (!stands) show(write(value));
    // Once for each address without it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [stands]);
  const set = useCallback(
    (change: Partial<T> | ((now: T) => Partial<T>)) =>
      show((address) => {
        const now = begin(read(address) ?? stored<Partial<T>>(key));
        const next = { ...now, ...(typeof change === "function" ? change(now) : change) };
        store(key, next);
        return write(next);
      }),
    [show, begin, read, write, key],
  );
  return [value, set] as const;
}

/** Several words in one, taken apart by commas. */
export const joined = (words: readonly string[]) =>
  words.map((word) => word.replace(/[%,]/g, encodeURIComponent)).join(",");
export const parted = (text: string | null) =>
  text ? text.split(",").map((word) => decode(word)) : [];

function decode(word: string): string {
  try {
    return decodeURIComponent(word);
  } catch {
    return word;
  }
}

import { useSearchParams } from "react-router";

/** What is asked for, kept in the address so that it can be sent to a colleague. */
export function useAsked() {
  const [search, setSearch] = useSearchParams();
  const set = (change: Record<string, string | undefined>) =>
    setSearch(
      (now) => {
        const next = new URLSearchParams(now);
        for (const [key, value] of Object.entries(change)) {
          if (value) next.set(key, value);
          else next.delete(key);
        }
        return next;
      },
      { replace: true },
    );
  return [search, set] as const;
}

import { useScenario } from "../scenario/ScenarioProvider";

/** What a list is searched for, kept in the address. */
export function useSearched(): [string, (text: string) => void] {
  const { search, show } = useScenario();
  const text = new URLSearchParams(search).get("q") ?? "";
  return [text, (next) => show({ q: next || null })];
}

export function SearchField({ of, placeholder }: { of: string; placeholder?: string }) {
  const [text, search] = useSearched();
  return (
    <label className="flex flex-col text-sm text-iron">
      Search
      <input
        type="search"
        className="field w-64 text-ink"
        aria-label={`Search ${of}`}
        placeholder={placeholder}
        value={text}
        onChange={(event) => search(event.target.value)}
      />
    </label>
  );
}

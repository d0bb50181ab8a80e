import { Labelled, type Named } from "./Labelled";

interface Props<T extends string> extends Named {
  /** What a screen reader says of it, where that is more than the label. */
  name?: string;
  value: T | "";
  /** Each value with its word; one of nothing chosen may be among them. */
  options: readonly (readonly [T | "", string])[];
  /** What stands there while nothing is chosen. */
  none?: string;
  onSet: (value: T) => void;
  disabled?: boolean;
  title?: string | undefined;
  /** As a field of a form, or as a word of a line. */
  look?: "field" | "word";
}

const LOOKS = {
  field: "field text-ink",
  word: "border-b border-iron bg-paper text-ink",
} as const;

/** A choice of one of several. */
export function Select<T extends string>({
  name,
  value,
  options,
  none,
  onSet,
  disabled,
  title,
  look,
  ...named
}: Props<T>) {
  const { place = "above" } = named;
  return (
    <Labelled {...named}>
      {(field) => (
        <select
          {...field}
          aria-label={name}
          className={LOOKS[look ?? (place === "above" ? "field" : "word")]}
          value={value}
          disabled={disabled}
          title={title}
          onChange={(event) => onSet(event.target.value as T)}
        >
          {none !== undefined && value === "" && <option value="">{none}</option>}
          {options.map(([key, word]) => (
            <option key={key} value={key}>
              {word}
            </option>
          ))}
        </select>
      )}
    </Labelled>
  );
}

/** The words of a closed set, each with its key. */
export const optionsOf = <T extends string>(words: Record<T, string>) =>
  Object.entries(words) as [T, string][];

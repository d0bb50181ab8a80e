import type { Schemas } from "../api/client";
import { useMay, useSession } from "../session/session";

interface Props {
  label?: string;
  /** What saving takes. */
  needs?: Extract<Schemas["Access"], "record" | "change">;
}

const WHOSE = { record: "the floor's or a technologist's", change: "a technologist's" } as const;

/** Who records: whoever is signed in, if it is theirs to do. */
export function Author({ label = "Saved by", needs = "change" }: Props) {
  const name = useSession()?.person?.name;
  const may = useMay(needs);
  return (
    <p className="w-44 text-sm text-iron">
      {label}
      {may ? (
        <span className="block truncate py-1.5 text-base text-ink">{name ?? "–"}</span>
      ) : (
        <span className="block py-1.5 text-crust">Not you: this is {WHOSE[needs]} to do.</span>
      )}
    </p>
  );
}

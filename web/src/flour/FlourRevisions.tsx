import type { Schemas } from "../api/client";
import { message } from "../plant/AllergensOf";
import { useFormat, type Format } from "../units/format";
import { SPECIES, TREATMENTS, USES } from "../plant/uses";

type Flour = Schemas["FlourView"];

const facts = (flour: Flour, format: Format): [label: string, text: string][] => [
  ["name", flour.name],
  ["mill", flour.mill],
  ["grain", SPECIES[flour.species]],
  ["kernel", flour.hardness ?? ""],
  ["extraction", flour.extraction_pct == null ? "" : format.percent(flour.extraction_pct)],
  ["treatment", TREATMENTS[flour.treatment]],
  ["meant for", USES[flour.intended_use]],
  ["price of a tonne", flour.price_per_t == null ? "" : format.plain(flour.price_per_t)],
  ["allergens", flour.allergens == null ? "" : message(flour.allergens)],
  ["note", flour.note],
];

/** Who changed what a flour is, when, why and from what to what; newest first. */
export function FlourRevisions({ revisions }: { revisions: Schemas["FlourRevisionView"][] }) {
  const format = useFormat();
  return (
    <ol className="mt-1 max-w-3xl text-sm text-iron">
      {revisions.map(({ revision, flour }, at) => {
        const before = revisions[at + 1];
        const was = before && facts(before.flour, format);
        const changed = facts(flour, format).flatMap(([label, text], at) => {
          const earlier = was?.[at]?.[1] ?? text;
          return earlier === text ? [] : [`${label} ${earlier || "–"} → ${text || "–"}`];
        });
        return (
          <li key={revision.id} className="border-t border-hair py-1">
            <b className="text-ink">Revision {revision.number}</b>, {format.date(revision.made_at)},{" "}
            {revision.made_by}
            {revision.reason && `: ${revision.reason}`}
            {changed.length > 0 && <span className="block text-ink">{changed.join(" · ")}</span>}
          </li>
        );
      })}
    </ol>
  );
}

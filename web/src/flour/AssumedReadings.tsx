import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";

/** What no certificate or bag stated of the flours, and is taken as usual. */
export function AssumedReadings({ assumed }: { assumed: Schemas["AssumedReading"][] }) {
  const format = useFormat();
  if (assumed.length === 0) return null;
  const flours = [...new Set(assumed.map((one) => one.flour))];
  return (
    <div className="mt-4 border-l-4 border-hair bg-faint px-3 py-2">
      {flours.map((flour) => (
        <p key={flour}>
          Not stated of {flour}, taken as usual (H):{" "}
          {assumed
            .filter((one) => one.flour === flour)
            .map(
              ({ label, unit, value }) =>
                `${label} ${format.plain(value.typical)} ${unit} (${format.plain(value.low)} to ${format.plain(value.high)})`,
            )
            .join(", ")}
          .
        </p>
      ))}
    </div>
  );
}

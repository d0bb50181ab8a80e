import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";

interface Props {
  cadence: Schemas["Cadence"];
  fullest: Schemas["Fullest"][];
}

/** How often each place lets a dough through, and which of them sets the cadence. */
export function CadenceTable({ cadence, fullest }: Props) {
  const format = useFormat();
  const most = Math.max(...cadence.paces.map((pace) => pace.minutes));
  return (
    <section aria-labelledby="cadence">
      <h2 id="cadence">
        The {cadence.bottleneck} {cadence.bottleneck === "troughs" ? "are" : "is"} the bottleneck
      </h2>
      <table className="mt-1 w-full">
        <caption className="sr-only">Batch interval by station, minutes</caption>
        <tbody>
          {cadence.paces.map((pace) => (
            <tr key={pace.place} className="border-t border-hair align-top">
              <th scope="row" className="py-1 text-base font-normal text-ink">
                {pace.place}
                <span className="block text-xs text-iron">{pace.message}</span>
              </th>
              <td className="w-30 px-3 py-1">
                <span
                  aria-hidden
                  className={`block h-2 ${pace.place === cadence.bottleneck ? "bg-crust" : "bg-hair"}`}
                  style={{ width: `${(100 * pace.minutes) / most}%` }}
                />
              </td>
              <td className="figure text-right whitespace-nowrap">
                {format.number(pace.minutes)} min
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-sm text-iron">
        {cadence.divide_min >= 1 && (
          <>
            A dough is divided in {format.minutes(cadence.divide_min)} at{" "}
            {format.number(cadence.divider_per_min, cadence.divider_per_min < 10 ? 1 : 0)} pieces a
            minute; its last piece is {format.minutes(cadence.oldest_min)} from the mixer.
          </>
        )}
        {cadence.divide_limit_min != null && cadence.most_kg != null && (
          <>
            {" "}
            To be divided in {format.minutes(cadence.divide_limit_min)} it may weigh{" "}
            {format.mass(cadence.most_kg, 1)}.
          </>
        )}
        {cadence.troughs > 0 && (
          <>
            {" "}
            {cadence.troughs} troughs in a steady run, {format.number(cadence.floor_m2)} m² of
            floor.
          </>
        )}
        {fullest.length > 0 && (
          <>
            {" "}
            At its fullest:{" "}
            {fullest
              .map(
                (one) =>
                  `${one.place} ${format.number(one.most, 0)} of ${format.number(one.holds, 0)}`,
              )
              .join(", ")}
            .
          </>
        )}
      </p>
    </section>
  );
}

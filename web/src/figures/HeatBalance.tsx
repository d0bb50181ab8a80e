import { scaleLinear } from "d3-scale";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";

/** What warms and what cools one dough on the way to its temperature, and what the water must do. */
export function HeatBalance({ terms: all, of }: { terms: Schemas["Term"][]; of: string }) {
  const format = useFormat();
  const most = Math.max(...all.map((term) => Math.abs(term.kj)), 0.01);
  const terms = all.filter((term) => Math.abs(term.kj) >= most / 1000);
  const width = scaleLinear([0, most], [0, 50]);
  return (
    <table className="w-full text-sm">
      <caption className="sr-only">Heat brought in and taken away, in kJ for {of}</caption>
      <thead>
        <tr>
          <th scope="col" className="w-36 pb-1">
            for {of}
          </th>
          <th scope="col" className="pb-1 text-center" aria-label="drawing">
            <span className="flex justify-around">
              <span>cools</span>
              <span>warms</span>
            </span>
          </th>
          <th scope="col" className="w-24 pb-1 text-right">
            kJ
          </th>
        </tr>
      </thead>
      <tbody>
        {terms.map((term) => (
          <tr key={term.name} className="border-t border-hair">
            <th scope="row" className="py-1 text-ink">
              {term.name}
            </th>
            <td className="relative h-7">
              <span className="absolute inset-y-0 left-1/2 w-px bg-ink" />
              <span
                className={`absolute inset-y-1 ${term.kj < 0 ? "bg-water" : "bg-crust"}`}
                style={
                  term.kj < 0
                    ? { right: "50%", width: `${width(-term.kj)}%` }
                    : { left: "50%", width: `${width(term.kj)}%` }
                }
              />
            </td>
            <td className="py-1 text-right">{format.signed(term.kj, most < 100 ? 1 : 0)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

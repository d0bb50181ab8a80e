import type { Schemas } from "../api/client";
import { ScoreRule } from "../figures/ScoreRule";
import { useFormat } from "../units/format";
import { markText } from "./sheet";

interface Props {
  panel: Schemas["Panel"];
  lines: Schemas["SheetLine"][];
}

/** What judges say together: each characteristic on its rule, and the total with its stops. */
export function PanelSheet({ panel, lines }: Props) {
  const format = useFormat();
  const { total } = panel;
  const labelOf = (of: Schemas["Characteristic"]) =>
    lines.find((line) => line.of === of)?.label ?? of;
  return (
    <>
      <p className="mt-2 text-lg">
        {total.total == null ? (
          <>No total: only {format.plain(total.weight)} of 100 of the weight is marked.</>
        ) : (
          <>
            <b className="figure text-2xl">{format.number(total.total, 0)}</b> of 100
            {panel.total_sd != null && (
              <span className="text-iron">, judging alone ± {format.number(panel.total_sd)}</span>
            )}
            <span className="text-iron">
              , {format.count(panel.loaves, "loaf", "loaves")},{" "}
              {format.count(panel.judges.length, "judge")}
            </span>
          </>
        )}
      </p>
      {total.stops.map((of) => (
        <p key={of} className="font-semibold text-stop">
          Stop: {labelOf(of).toLowerCase()} is so low that the total does not buy it back.
        </p>
      ))}
      <div className="mt-3 max-w-5xl overflow-x-auto" tabIndex={0}>
        <table className="w-full">
          <caption className="sr-only">Marks by characteristic</caption>
          <thead>
            <tr>
              <th>characteristic</th>
              <th className="text-right">weight</th>
              <th className="px-4">1 to 5, the standard at the right</th>
              <th className="text-right">joint mark</th>
              {panel.judges.map((judge) => (
                <th key={judge.judge} className="text-right">
                  {judge.judge}
                </th>
              ))}
              <th className="pl-3">agreement</th>
            </tr>
          </thead>
          <tbody>
            {panel.traits.map((one) => (
              <tr key={one.of} className="border-t border-hair">
                <td>{labelOf(one.of)}</td>
                <td className="text-right">{format.plain(one.weight)}</td>
                <td className="px-4">
                  <ScoreRule
                    label={`${labelOf(one.of)}: ${format.number(one.mark)}`}
                    marks={one.marks.map(({ judge, levelled }) => ({ judge, mark: levelled }))}
                    joint={one}
                  />
                </td>
                <td className="figure text-right">{markText(one.mark, one.sign, format)}</td>
                {panel.judges.map(({ judge }) => {
                  const own = one.marks.find((mark) => mark.judge === judge);
                  return (
                    <td key={judge} className="text-right">
                      {own && format.number(own.mark, 2)}
                    </td>
                  );
                })}
                <td className="pl-3 text-sm text-crust">
                  {one.agree ? "" : "they disagree: look once more, blind"}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-2 text-sm text-iron">
        {panel.judges.map(({ judge, level, sd }) => (
          <span key={judge} className="mr-6">
            {judge}: level {format.signed(level, 2)}, repeats within ± {format.number(sd, 2)}
          </span>
        ))}
        Each judge's level is taken off before the marks are put together. Weights and repeatability
        before any repeat are house judgement.
      </p>
    </>
  );
}

import { scaleLinear } from "d3-scale";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { readScenario, writeScenario } from "../scenario/scenario";
import { useFormat } from "../units/format";
import { ChartGrid } from "./ChartGrid";
import { spread } from "./scale";
import { useScenario } from "../scenario/ScenarioProvider";

const WIDTH = 520;
const HEIGHT = 400;
const EDGE = { left: 44, right: 12 };

interface Props {
  lots: Schemas["PredictedAbsorption"][];
}

/** Measured absorption over what was predicted before it: on the slant it was right. */
export function PredictionPlot({ lots }: Props) {
  const format = useFormat();
  const { search } = useScenario();
  const to = (lot: string) => ({
    pathname: "/flour",
    search: writeScenario({ ...readScenario(new URLSearchParams(search)), lot }).toString(),
  });
  const domain = spread(lots.flatMap((lot) => [lot.measured_pct, lot.predicted_pct]));
  const x = scaleLinear(domain, [EDGE.left, WIDTH - EDGE.right]);
  const y = scaleLinear(domain, [HEIGHT - 30, 22]);
  const [low, high] = domain;
  const off = (lot: Schemas["PredictedAbsorption"]) => lot.measured_pct - lot.predicted_pct;
  const farthest = [...lots].sort((one, two) => Math.abs(off(two)) - Math.abs(off(one)));
  return (
    <figure aria-label="Measured over predicted absorption" className="max-w-2xl">
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="block w-full" aria-hidden>
        <ChartGrid
          x={x}
          y={y}
          width={WIDTH}
          height={HEIGHT}
          edge={EDGE}
          units={["predicted, %", "measured, %"]}
        />
        <line
          x1={x(low)}
          y1={y(low)}
          x2={x(high)}
          y2={y(high)}
          stroke="var(--color-ink)"
          strokeDasharray="5 4"
        />
        {lots.map((lot) => {
          const beyond = Math.abs(off(lot)) > 2 * lot.sd_pct;
          return (
            <circle
              key={lot.lot_id}
              cx={x(lot.predicted_pct)}
              cy={y(lot.measured_pct)}
              r={beyond ? 5 : 3.2}
              fill={beyond ? "var(--color-crust)" : "var(--color-water)"}
              fillOpacity={beyond ? 1 : 0.55}
            />
          );
        })}
      </svg>
      <figcaption className="text-sm text-iron">
        Each lot as it would have been predicted from the lots before it. Large marks are off by
        more than twice what was thought likely.
      </figcaption>
      <table className="mt-3 w-full text-sm">
        <caption className="text-left font-semibold">Farthest off</caption>
        <thead>
          <tr className="border-b border-ink">
            <th scope="col">lot</th>
            <th scope="col" className="text-right">
              measured
            </th>
            <th scope="col" className="text-right">
              predicted
            </th>
            <th scope="col" className="text-right">
              off by
            </th>
          </tr>
        </thead>
        <tbody>
          {farthest.slice(0, 6).map((lot) => (
            <tr key={lot.lot_id} className="border-b border-hair">
              <th scope="row" className="py-0.5">
                <Link to={to(lot.lot_id)} className="link text-ink">
                  {lot.code}
                </Link>{" "}
                {lot.flour}
              </th>
              <td className="text-right">{format.percent(lot.measured_pct)}</td>
              <td className="text-right">
                {format.percent(lot.predicted_pct)} ± {format.number(lot.sd_pct)}
              </td>
              <td className="figure text-right">{format.signed(off(lot))}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </figure>
  );
}

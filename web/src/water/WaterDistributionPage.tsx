import { useId, useState } from "react";
import { WaterDistributionFigure } from "../figures/WaterDistributionFigure";
import { useLot, useLotsOf } from "../scenario/useChain";
import { EmptyState } from "../shell/EmptyState";
import { Refusal } from "../form/Refusal";
import { GlossaryTerm } from "../shell/GlossaryTerm";
import { useScenarioContext } from "../shell/useScenarioContext";
import { useFormat } from "../units/format";
import { useWaterDistribution } from "./useWaterDistribution";
import { WaterTabs } from "./WaterTabs";
import { Select } from "../form/Select";

const MOST = 8;

/** How the water is distributed in this dough, beside another lot, and what extra water does to it. */
export function WaterDistributionPage() {
  const { chain, lot, product } = useScenarioContext();
  const format = useFormat();
  const slider = useId();
  const [added, setAdded] = useState(0);
  const [chosen, choose] = useState<string | null>(null);
  const lots = useLotsOf(lot?.flour.id).data?.lots.filter((one) => one.id !== lot?.id) ?? [];
  const reference = useLot(chosen ?? lots[0]?.id ?? null).data;
  const { data: held, error } = useWaterDistribution(added, reference?.revision.id);
  if (!chain || !lot || !product || !held)
    return (
      <>
        <WaterTabs />
        {error ? <Refusal error={error} /> : <EmptyState link="water" />}
      </>
    );
  const { by_feel: feel, lot: ours } = held;
  if (!ours || !feel)
    return (
      <>
        <WaterTabs />
        <h1>Water distribution</h1>
        <p className="mt-2 max-w-prose">
          This dough has no gluten: fibre, gums and starch hold its water, and how much each does is
          the supplier's to say. Its figure stands on the blend's own sheet.
        </p>
      </>
    );
  const critical = held.critical_damaged_pct ?? null;
  const trap = critical !== null && ours.of_flour.damaged_pct > critical;
  return (
    <>
      <WaterTabs />
      <div className="flex flex-wrap items-end gap-x-10 gap-y-3">
        <div>
          <h1>Water distribution</h1>
          <p className="text-sm text-iron">
            {product.name} from {lot.code}, {format.percent(chain.water?.floor_pct ?? 0)} on flour
          </p>
        </div>
        <Select
          label="Beside"
          value={reference?.id ?? ""}
          options={lots.map((one) => [one.id, one.code])}
          onSet={choose}
        />
        <p className={`text-sm ${trap ? "text-crust" : ""}`}>
          <span className="figure block text-2xl">{format.percent(ours.of_flour.damaged_pct)}</span>
          <GlossaryTerm of="damaged starch" />
          {critical === null ? "" : `, critical above ${format.percent(critical)}`}
        </p>
      </div>
      <div className="mt-5 grid gap-x-12 gap-y-6 lg:grid-cols-[minmax(0,1fr)_20rem]">
        <WaterDistributionFigure
          rows={[
            { name: lot.code, shares: ours.shares },
            ...(held.reference && held.reference_code
              ? [{ name: held.reference_code, shares: held.reference.shares }]
              : []),
            ...(added > 0
              ? [
                  {
                    name: `${lot.code} with ${format.plain(added)} by the operator`,
                    shares: feel.shares,
                  },
                ]
              : []),
          ]}
        />
        <section aria-labelledby="feel">
          <h2 id="feel">Extra water by the operator</h2>
          <label htmlFor={slider} className="mt-1 block text-sm text-iron">
            Points on flour beyond the plan
          </label>
          <input
            id={slider}
            type="range"
            min="0"
            max={MOST}
            step="0.5"
            className="w-full accent-(--color-water)"
            value={added}
            onChange={(event) => setAdded(Number(event.target.value))}
          />
          <p className="figure text-4xl text-water">+{format.number(added)}</p>
          <p className="mt-2 text-sm">
            Protein holds{" "}
            <b>
              {format.percent(ours.shares.protein_pct)}
              {added > 0 && ` → ${format.percent(feel.shares.protein_pct)}`}
            </b>{" "}
            of the water.
          </p>
          <ul className="mt-2 list-disc pl-5 text-sm">
            {feel.will.map((message) => (
              <li key={message} className="mt-1">
                {format.text(message.charAt(0).toUpperCase() + message.slice(1))}.
              </li>
            ))}
          </ul>
          {added === 0 && (
            <p className="text-sm text-iron">
              {trap
                ? "This lot feels dry at the mixer: damaged starch has drunk at once and will let go again. Move the slider to see what giving in to the feel does."
                : "Move the slider to see what a bucket more at the mixer does to the gluten and to the bake."}
            </p>
          )}
          {added > 0 && (
            <p className="mt-2 text-sm text-iron">
              {format.mass(feel.to_drive_out_kg)} more water for {format.mass(100, 1)} of flour to
              drive out; aim for arrival at {format.percent(feel.arrival_target_pct, 0)} of the
              bake.
            </p>
          )}
        </section>
      </div>
      <p className="mt-4 max-w-prose text-sm text-iron">
        Each holds its mass times its capacity: intact starch 0.44, damaged 2.00, protein 2.15,
        pentosan 15.0 g/g (S).
        {held.assumed.length > 0 &&
          ` No certificate states it, so it is taken as usual (H): ${held.assumed.join("; ")}.`}
      </p>
    </>
  );
}

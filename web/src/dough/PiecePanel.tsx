import type { Schemas } from "../api/client";
import { useScenarioContext } from "../shell/useScenarioContext";
import { useFormat } from "../units/format";
import { NumberField } from "../form/NumberField";
import { PieceByForm } from "./PieceByForm";
import { useFormula } from "./useFormula";

const LOSSES: [keyof Schemas["Losses"], string][] = [
  ["scaling_pct", "in scaling"],
  ["fermentation_pct", "in fermentation"],
  ["bake_pct", "in the bake"],
  ["cooling_pct", "in cooling"],
];

/** The piece, what is lost of it on the way, and the water and batch the formula holds. */
export function PiecePanel() {
  const { chain, product, refused } = useScenarioContext();
  const { formula, set } = useFormula();
  const format = useFormat();
  if (!product) return null;
  const losses = { ...product.formula.losses, ...formula.losses };
  return (
    <details className="border-t border-ink pt-3">
      <summary>
        <span className="font-semibold">Piece</span>{" "}
        <span className="text-sm text-iron">
          {format.mass(formula.piece_kg ?? product.formula.piece_kg, 0.001)}
          {chain?.dough &&
            `, of which ${format.percent(chain.dough.process_loss_pct)} process loss`}
          ; water{" "}
          {formula.hydration_pct == null
            ? "as computed"
            : `its own, ${format.percent(formula.hydration_pct)}`}
        </span>
      </summary>
      <div className="mt-2 grid grid-cols-2 gap-x-4 gap-y-2">
        <NumberField
          label="Scaled at"
          kind="mass"
          value={formula.piece_kg ?? null}
          onSet={(piece_kg) => set(() => ({ piece_kg: piece_kg ?? product.formula.piece_kg }))}
          fault={refused?.at("piece_kg")}
        />
        <NumberField
          label="Wetter by style, points"
          kind="number"
          value={formula.style_points ?? null}
          onSet={(style_points) => set(() => ({ style_points: style_points ?? 0 }))}
          fault={refused?.at("style_points")}
        />
        <NumberField
          label="Own dough absorption, else as computed"
          kind="percent"
          value={formula.hydration_pct ?? null}
          onSet={(pct) => set(() => ({ hydration_pct: pct ?? undefined }))}
          fault={refused?.at("hydration_pct")}
        />
        <NumberField
          label="Usual batch, else one full mixer"
          kind="mass"
          value={formula.batch_kg ?? null}
          onSet={(batch_kg) => set(() => ({ batch_kg: batch_kg ?? undefined }))}
          fault={refused?.at("batch_kg")}
        />
        {LOSSES.map(([key, word]) => (
          <NumberField
            key={key}
            label={`Process loss ${word}`}
            kind="percent"
            value={losses[key]}
            onSet={(value) =>
              set((now) => ({
                losses: {
                  ...product.formula.losses,
                  ...now.losses,
                  [key]: value ?? product.formula.losses[key],
                },
              }))
            }
            fault={refused?.at(`losses.${key}`)}
          />
        ))}
      </div>
      <PieceByForm
        scaledAt={formula.piece_kg ?? product.formula.piece_kg}
        onScale={(piece_kg) => set(() => ({ piece_kg }))}
      />
    </details>
  );
}

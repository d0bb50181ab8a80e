import { useScenario } from "../scenario/ScenarioProvider";
import { EmptyState } from "../shell/EmptyState";
import { GlossaryTerm } from "../shell/GlossaryTerm";
import { useScenarioContext } from "../shell/useScenarioContext";
import { ChainDerivation } from "../shell/Derivation";
import { useFormat } from "../units/format";
import { BatchSizePanel } from "./BatchSizePanel";
import { CostPanel } from "./CostPanel";
import { DoughTabs } from "./DoughTabs";
import { FormulaTable } from "./FormulaTable";
import { AdjustWeight } from "./AdjustWeight";
import { PreparationsPanel } from "./PreparationsPanel";
import { PiecePanel } from "./PiecePanel";

export function DoughPage() {
  const { chain, product, lot, refused } = useScenarioContext();
  const format = useFormat();
  const { draft } = useScenario();
  // A formula being edited stays in sight whatever it does to the chain.
  if (!product || !lot || (!chain?.dough && !refused && !draft))
    return (
      <>
        <DoughTabs />
        <EmptyState link="dough" />
      </>
    );
  const dough = chain?.dough;
  return (
    <>
      <DoughTabs />
      <div className="flex flex-wrap items-end gap-x-10 gap-y-3">
        <div>
          <h1>{product.name}</h1>
          <p className="text-sm text-iron">
            <GlossaryTerm of="baker's percent">Baker's percent</GlossaryTerm> on {lot.flour.name}{" "}
            {lot.code}
          </p>
        </div>
        {dough && (
          <>
            <p>
              <ChainDerivation link="dough" of="one batch">
                <span className="figure text-5xl">{format.mass(dough.dough_kg)}</span>
              </ChainDerivation>
              <span className="block text-sm">
                one batch
                {dough.doughs > 1 &&
                  `, ${dough.doughs} of them: ${format.mass(dough.total_kg)} together`}
              </span>
            </p>
            <p className="text-sm">
              <span className="figure block text-2xl">{format.number(dough.pieces, 0)}</span>
              pieces of {format.mass(dough.piece_kg, 0.001)}, about{" "}
              {format.mass(dough.cooled_piece_kg, 0.001)} when cool
            </p>
            <p className="text-sm">
              <span className="figure block text-2xl">
                {format.percent(dough.formula_hydration_pct)}
              </span>
              formula <GlossaryTerm of="hydration" />; effective{" "}
              {format.percent(dough.effective_hydration_pct)}
            </p>
            <button
              type="button"
              className="screen-only act ml-auto"
              onClick={() => window.print()}
            >
              Print
            </button>
          </>
        )}
      </div>
      <div className="mt-6 grid gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,1fr)_20rem]">
        <div className="space-y-8">
          {chain?.error && chain.error.link !== "floor" && (
            <p className="border-l-4 border-stop bg-faint px-3 py-2" role="alert">
              The chain stops at {chain.error.link}: {format.text(chain.error.message)}.
            </p>
          )}
          <FormulaTable />
          {chain?.dough && <AdjustWeight />}
        </div>
        <div className="space-y-6">
          <BatchSizePanel />
          <PiecePanel />
          <PreparationsPanel />
          <CostPanel />
        </div>
      </div>
    </>
  );
}

import { AddressCode } from "../figures/AddressCode";
import { useScenarioContext } from "../shell/useScenarioContext";
import { useFormat } from "../units/format";
import { NoLot } from "./NoLot";

/** A label for a lot's pallets: its code in letters, and its address for a tablet's camera. */
export function LotLabelPage() {
  const { lot } = useScenarioContext();
  const format = useFormat();
  if (!lot) return <NoLot />;
  return (
    <>
      <article
        aria-label="Lot label"
        className="max-w-md border-2 border-ink bg-sheet p-4 print:max-w-none"
      >
        <div className="flex items-start justify-between gap-4">
          <p className="figure text-5xl">{lot.code}</p>
          <AddressCode address={`/flour?lot=${lot.id}`} of={`lot ${lot.code}`} />
        </div>
        <p className="mt-2 text-xl">
          {lot.flour.name}, {lot.flour.mill}
        </p>
        <p>
          {lot.milled_on && `milled ${format.date(lot.milled_on)}`}
          {lot.delivered_on && `, delivered ${format.date(lot.delivered_on)}`}
        </p>
      </article>
      <button type="button" className="act screen-only mt-4" onClick={() => window.print()}>
        Print label
      </button>
    </>
  );
}

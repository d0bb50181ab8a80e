import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { useFlours } from "../scenario/useFlours";
import { USES } from "./uses";
import { DataTable, type Column } from "../table/DataTable";
import { useFormat, type Format } from "../units/format";
import { PlantTabs } from "./PlantTabs";
import { SearchField, useSearched } from "./SearchField";

const columns = (format: Format): Column<Schemas["FlourView"]>[] => [
  {
    head: "flour",
    of: (one) => one.name,
    show: (one) => (
      <Link className="link font-semibold" to={`/flour/specification/${one.id}`}>
        {one.name}
      </Link>
    ),
  },
  { head: "mill", of: (one) => one.mill },
  { head: "grain", of: (one) => one.species_label },
  { head: "for", of: (one) => USES[one.intended_use] },
  {
    head: "extraction, %",
    of: (one) => one.extraction_pct,
    figures: true,
    show: (one) => one.extraction_pct != null && format.plain(one.extraction_pct),
  },
  {
    head: "price a tonne",
    of: (one) => one.price_per_t,
    figures: true,
    show: (one) => one.price_per_t != null && format.plain(one.price_per_t),
  },
];

/** The flours the plant buys or blends, each with its specification. */
export function FloursPage() {
  const flours = useFlours();
  const format = useFormat();
  const [text] = useSearched();
  return (
    <>
      <PlantTabs />
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h1>Flours and specifications</h1>
        <Link className="act" to="/flour/receive">
          Receive flour
        </Link>
      </div>
      <div className="mt-3">
        <SearchField of="flours" placeholder="flour, mill, grain" />
      </div>
      <DataTable
        caption="Flours"
        rows={flours}
        columns={columns(format)}
        rowKey={(one) => one.id}
        search={text}
        empty={
          <>
            No flours yet. Say what the first one is and what is asked of it under{" "}
            <Link className="link" to="/flour/specification">
              Specification
            </Link>
            .
          </>
        }
        act={(one) => (
          <>
            <Link className="link text-sm" to={`/flour/specification/${one.id}`}>
              Specification and history
            </Link>{" "}
            ·{" "}
            <Link className="link text-sm" to={`/flour/control-chart/${one.id}`}>
              Control chart
            </Link>
          </>
        )}
      />
    </>
  );
}

import { Link } from "react-router";
import type { Schemas } from "../api/client";
import type { Column } from "../table/DataTable";
import type { Format } from "../units/format";

/** A bake as a list shows it. */
export const bakeColumns = (format: Format): Column<Schemas["BakeSummary"]>[] => [
  {
    head: "bake",
    of: (bake) => bake.planned_for,
    show: (bake) => (
      <Link className="link font-semibold" to={`/oven/bakes/${bake.id}`}>
        {bake.product}, {format.moment(bake.planned_for)}
      </Link>
    ),
  },
  { head: "line", of: (bake) => bake.line },
  {
    head: "baked for",
    of: (bake) => bake.bake_min,
    show: (bake) => format.minutes(bake.bake_min),
    figures: true,
  },
  {
    head: "arrival of the slowest core",
    of: (bake) => bake.arrival_pct ?? "",
    show: (bake) => (bake.arrival_pct == null ? "never" : format.percent(bake.arrival_pct)),
    figures: true,
  },
  {
    head: "trace",
    of: (bake) => bake.source,
    show: (bake) => `${bake.source === "instrument" ? "logger" : "imported"}, ${bake.made_by}`,
  },
];

import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { DataTable, type Column } from "../table/DataTable";
import { useFormat, type Format } from "../units/format";
import { PlantTabs } from "./PlantTabs";
import { SearchField, useSearched } from "./SearchField";

const columns = (format: Format): Column<Schemas["Mill"]>[] => [
  { head: "mill", of: (one) => one.name },
  { head: "flours", of: (one) => one.flours, figures: true },
  {
    head: "newest lot",
    of: (one) => one.newest_lot_at,
    show: (one) => one.newest_lot_at != null && format.date(one.newest_lot_at),
  },
  {
    head: "its table of readings",
    of: (one) => (one.is_table_known ? "known" : "not read yet"),
  },
];

/** The mills the plant has flours of. */
export function MillsPage() {
  const format = useFormat();
  const [text] = useSearched();
  const mills = useQuery({
    queryKey: ["mills"],
    queryFn: () => answer(api.GET("/api/v1/mills")),
  }).data;
  return (
    <>
      <PlantTabs />
      <h1>Mills</h1>
      <p className="text-sm text-iron">
        A mill comes with the first of its flours; how its table is read is kept at the first bulk
        import.
      </p>
      <div className="mt-3">
        <SearchField of="mills" placeholder="mill" />
      </div>
      <DataTable
        caption="Mills"
        rows={mills}
        columns={columns(format)}
        rowKey={(one) => one.id}
        search={text}
        empty="No mills yet. The first flour brings one."
        act={(one) => (
          <Link className="link text-sm" to={`/plant/flours?q=${encodeURIComponent(one.name)}`}>
            Its flours
          </Link>
        )}
      />
    </>
  );
}

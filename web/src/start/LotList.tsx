import { Link } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { DISPOSITION } from "../shell/disposition";
import { VERDICT } from "../shell/verdict";
import type { Column } from "../table/DataTable";
import { PagedList } from "../table/PagedList";
import { useFormat, type Format } from "../units/format";

type LotRow = Schemas["LotPage"]["lots"][number];

const columns = (format: Format): Column<LotRow>[] => [
  {
    head: "lot",
    of: (lot) => lot.code,
    show: (lot) => (
      <Link className="link font-semibold" to={`/flour?lot=${lot.id}`}>
        {lot.code}
      </Link>
    ),
  },
  { head: "flour", of: (lot) => lot.flour },
  {
    head: "milled",
    of: (lot) => lot.milled_on,
    show: (lot) => lot.milled_on && format.date(lot.milled_on),
  },
  {
    head: "received",
    of: (lot) => lot.tonnes,
    figures: true,
    show: (lot) => lot.tonnes != null && format.tonnes(lot.tonnes),
  },
  {
    head: "stock",
    of: (lot) => lot.status.stock?.tonnes_left,
    figures: true,
    show: ({ status: { stock } }) =>
      stock && `${format.tonnes(stock.tonnes_left)} in ${stock.place}`,
  },
  {
    head: "specification",
    of: (lot) => lot.verdict && VERDICT[lot.verdict].word,
    show: (lot) =>
      lot.verdict && (
        <span className={VERDICT[lot.verdict].colour}>
          {VERDICT[lot.verdict].mark} {VERDICT[lot.verdict].word}
        </span>
      ),
  },
  {
    head: "release status",
    of: ({ status: { decision } }) =>
      decision ? (DISPOSITION[decision.decision]?.word ?? "") : "pending",
  },
];

/** Lots of every flour. */
export function LotList() {
  const format = useFormat();
  return (
    <PagedList
      heading="Lots, newest first"
      className="mt-8"
      queryKey={["lots"]}
      ask={(query) => answer(api.GET("/api/v1/lots", { params: { query } }))}
      rows={(page) => page.lots}
      columns={columns(format)}
      rowKey={(lot) => lot.id}
      empty="No lots yet. Drop a mill's certificate to import one."
      more="Older lots"
    />
  );
}

import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { useGoOn } from "../shell/useGoOn";
import { DataTable, type Column } from "../table/DataTable";
import { useFormat, type Format } from "../units/format";
import { LINES } from "../scenario/found";
import { LineForm } from "./LineForm";
import { PlantTabs } from "./PlantTabs";
import { SearchField, useSearched } from "./SearchField";

const columns = (format: Format): Column<Schemas["LineView"]>[] => [
  {
    head: "line",
    of: (one) => one.name,
    show: (one) => (
      <Link className="link font-semibold" to={`/plant/lines/${one.id}`}>
        {one.name}
      </Link>
    ),
  },
  { head: "mixer", of: (one) => `${one.mixer.name}, ${one.mixer.kind}` },
  {
    head: "holds",
    of: (one) => one.mixer.max_kg,
    figures: true,
    show: (one) => format.mass(one.mixer.max_kg, 1),
  },
  { head: "troughs", of: (one) => one.equipment.troughs, figures: true },
  { head: "proofer, pieces", of: (one) => one.equipment.proofer_pieces, figures: true },
  { head: "oven, pieces", of: (one) => one.equipment.oven_pieces, figures: true },
  {
    head: "revision",
    of: (one) => one.revision.number,
    figures: true,
  },
];

/** The plant's lines with their equipment; one of them open, or a new one. */
export function LinesPage() {
  const { lineId } = useParams();
  const goOn = useGoOn();
  const format = useFormat();
  const [text] = useSearched();
  const lines = useQuery(LINES).data;
  const kinds = useQuery({
    queryKey: ["mixer kinds"],
    queryFn: () => answer(api.GET("/api/v1/mixer-kinds")),
  }).data;
  const open = lines?.find((line) => line.id === lineId);
  return (
    <>
      <PlantTabs />
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h1>Lines and equipment</h1>
        <Link className="act" to="/plant/lines/new">
          New line
        </Link>
      </div>
      <div className="mt-3">
        <SearchField of="lines" />
      </div>
      <DataTable
        caption="Lines"
        rows={lines}
        columns={columns(format)}
        rowKey={(one) => one.id}
        search={text}
        empty="No lines yet. A product is made on a line: state what yours has."
      />
      {lineId && kinds && lines && (
        <div className="mt-8 max-w-3xl">
          {lineId === "new" || open ? (
            <LineForm
              key={open?.revision.id ?? "new"}
              {...(open && { line: open })}
              kinds={kinds}
              onSaved={(line) => goOn(`/plant/lines/${line.id}`)}
            />
          ) : (
            <p>No line has this address any more.</p>
          )}
          {open && <LineHistory line={open} />}
        </div>
      )}
    </>
  );
}

/** Who changed the line, when and why. */
function LineHistory({ line }: { line: Schemas["LineView"] }) {
  const format = useFormat();
  const revisions = useQuery({
    queryKey: ["lines", line.id, line.revision.id],
    queryFn: () =>
      answer(
        api.GET("/api/v1/lines/{line_id}/revisions", { params: { path: { line_id: line.id } } }),
      ),
  }).data;
  return (
    <section aria-labelledby="history" className="mt-8">
      <h2 id="history">Revisions of {line.name}</h2>
      <ol className="mt-1">
        {revisions?.map((one) => (
          <li key={one.id} className="border-b border-hair py-1">
            <b>{one.number}</b> {format.date(one.made_at)}, {one.made_by}: {one.reason}
          </li>
        ))}
      </ol>
    </section>
  );
}

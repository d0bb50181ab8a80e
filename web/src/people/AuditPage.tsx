import { answer, api, type Schemas } from "../api/client";
import { PlantTabs } from "../plant/PlantTabs";
import { SearchField, useSearched } from "../plant/SearchField";
import { type Column } from "../table/DataTable";
import { PagedList } from "../table/PagedList";
import { actionOf } from "./actions";
import { useFormat, type Format } from "../units/format";

/** Between which revisions. */
const revisions = ({ revision_before, revision_after }: Schemas["AuditEntry"]) =>
  revision_after == null
    ? ""
    : revision_before == null
      ? `${revision_after}, the first`
      : `${revision_before} to ${revision_after}`;

const columns = (format: Format): Column<Schemas["AuditEntry"]>[] => [
  {
    head: "when",
    of: (one) => one.at,
    show: (one) => <span className="whitespace-nowrap">{format.moment(one.at)}</span>,
  },
  { head: "who", of: (one) => one.who },
  { head: "from", of: (one) => one.address },
  { head: "what", of: (one) => actionOf(one.action) },
  {
    head: "at",
    of: (one) => one.subject,
    show: (one) => <span className="text-sm break-all text-iron">{one.subject}</span>,
  },
  { head: "revision", of: revisions },
];

/** Who did what, when, from where. */
export function AuditPage() {
  const format = useFormat();
  const [text] = useSearched();
  return (
    <>
      <PlantTabs />
      <h1>Audit trail</h1>
      <p className="max-w-2xl text-sm text-iron">
        Every record and every sign-in, with who, when and from where. Nobody can change it.
      </p>
      <div className="mt-3 flex flex-wrap items-end gap-4">
        <SearchField of="the audit trail" placeholder="who, or what was done" />
        <a className="link text-sm" href={`/api/v1/audit/csv?q=${encodeURIComponent(text)}`}>
          Save as CSV
        </a>
      </div>
      <PagedList
        className="mt-4"
        heading="Entries, newest first"
        queryKey={["audit", text]}
        ask={(cursor) =>
          answer(api.GET("/api/v1/audit", { params: { query: { q: text, ...cursor } } }))
        }
        rows={(page) => page.entries}
        columns={columns(format)}
        rowKey={(one) => one.id}
        empty="Nothing was done yet that fits this."
        more="Earlier ones"
      />
    </>
  );
}

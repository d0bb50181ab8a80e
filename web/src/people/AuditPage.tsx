import { answer, api, type Schemas } from "../api/client";
import { DateTimeField } from "../form/DateTimeField";
import { PlantTabs } from "../plant/PlantTabs";
import { SearchField, useSearched } from "../plant/SearchField";
import { useScenario } from "../scenario/ScenarioProvider";
import { type Column } from "../table/DataTable";
import { PagedList } from "../table/PagedList";
import { actionOf } from "./actions";
import { momentOf } from "../units/clock";
import { useFormat, type Format } from "../units/format";

/** Between which revisions. */
const revisions = ({ revision_before, revision_after }: Schemas["AuditEntry"]) =>
  revision_after == null
    ? ""
    : revision_before == null
      ? `${revision_after}, the first`
      : `${revision_before} to ${revision_after}`;

/** Who, and how far that is sure. */
const who = ({ who, verified, details }: Schemas["AuditEntry"]) => {
  const by = (details as { sent_by?: string } | null)?.sent_by;
  return [who, verified ? "" : "unverified", by ? `sent by ${by}` : ""].filter(Boolean).join(", ");
};

const columns = (
  format: Format,
  person: string,
  only: (person: string | null) => void,
): Column<Schemas["AuditEntry"]>[] => [
  {
    head: "when",
    of: (one) => one.at,
    show: (one) => <span className="whitespace-nowrap">{format.moment(one.at)}</span>,
  },
  {
    head: "who",
    of: who,
    show: (one) =>
      one.person_id && !person ? (
        <button
          type="button"
          className="link text-left"
          title={`Only ${one.who}`}
          onClick={() => only(one.person_id ?? null)}
        >
          {who(one)}
        </button>
      ) : (
        who(one)
      ),
  },
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
  const { search, show } = useScenario();
  const address = new URLSearchParams(search);
  const [from, to] = [address.get("from") ?? "", address.get("to") ?? ""];
  const person = address.get("person") ?? "";
  const wanted = {
    ...(text && { q: text }),
    ...(person && { person_id: person }),
    ...(from && { from: momentOf(from).toISOString() }),
    ...(to && { to: momentOf(to).toISOString() }),
  };
  return (
    <>
      <PlantTabs />
      <h1>Audit trail</h1>
      <p className="max-w-2xl text-sm text-iron">
        Every record and every sign-in, with who, when and from where. Nobody can change it.
      </p>
      <div className="mt-3 flex flex-wrap items-end gap-4">
        <SearchField of="the audit trail" placeholder="who, or what was done" />
        <DateTimeField
          label="From"
          className="w-56"
          optional
          value={from}
          onSet={(from) => show({ from: from || null })}
        />
        <DateTimeField
          label="Before"
          className="w-56"
          optional
          value={to}
          onSet={(to) => show({ to: to || null })}
        />
        {person && (
          <button type="button" className="act" onClick={() => show({ person: null })}>
            One person’s only: show everybody’s
          </button>
        )}
        <a className="link text-sm" href={`/api/v1/audit/csv?${new URLSearchParams(wanted)}`}>
          Save as CSV
        </a>
      </div>
      <PagedList
        className="mt-4"
        heading="Entries, newest first"
        queryKey={["audit", wanted]}
        ask={(cursor) =>
          answer(api.GET("/api/v1/audit", { params: { query: { ...wanted, ...cursor } } }))
        }
        rows={(page) => page.entries}
        columns={columns(format, person, (person) => show({ person }))}
        rowKey={(one) => one.id}
        empty="Nothing was done yet that fits this."
        more="Earlier ones"
      />
    </>
  );
}

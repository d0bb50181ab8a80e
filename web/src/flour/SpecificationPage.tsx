import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { useGoOn } from "../shell/useGoOn";
import { record } from "../api/outbox";
import { FieldText } from "../form/FieldText";
import { Author } from "../form/Author";
import { useKept } from "../storage/useKept";
import { useFormat } from "../units/format";
import { usePreferences } from "../units/preferences";
import { FlourChoice } from "./FlourChoice";
import { EditFlour, FlourFacts } from "./FlourFacts";
import { FlourTabs } from "./FlourTabs";
import { LimitRows } from "./LimitRows";
import { SuggestedLimits } from "./SuggestedLimits";
import { emptyLimit, limitOf, typed, type TypedLimit } from "./limits";
import { useFlourInView } from "./useFlour";
import { useScenario } from "../scenario/ScenarioProvider";
import { Select } from "../form/Select";
import { Form } from "../form/Form";

/** What the plant wants of a flour: revised, compared, proposed, printed, sent to the mill. */
export function SpecificationPage() {
  const { flour, flours } = useFlourInView();
  const [asked, setFresh] = useState<Schemas["FlourView"]>();
  // A plant without flours begins with its first.
  const [first] = useState(newFlour);
  const fresh = asked ?? (flours?.length === 0 ? first : undefined);
  const goOn = useGoOn();
  const { search } = useScenario();
  return (
    <>
      <FlourTabs />
      <div className="flex flex-wrap items-baseline gap-x-6">
        {flours?.length === 0 ? (
          <h1>The first flour</h1>
        ) : (
          <>
            <FlourChoice path="/flour/specification" flour={flour} flours={flours} />
            <button type="button" className="screen-only link" onClick={() => setFresh(newFlour())}>
              Another flour
            </button>
          </>
        )}
      </div>
      {fresh && (
        <EditFlour
          flour={fresh}
          number={1}
          onDone={(recorded) => {
            setFresh(undefined);
            if (recorded) goOn({ pathname: `/flour/specification/${fresh.id}`, search });
          }}
        />
      )}
      {flour && <FlourFacts key={flour.id} flour={flour} />}
      {flour && <Specification key={`${flour.id} limits`} flour={flour} />}
    </>
  );
}

const newFlour = (): Schemas["FlourView"] => ({
  id: crypto.randomUUID(),
  mill: "",
  name: "",
  note: "",
  species: "wheat",
  species_label: "",
  treatment: "none",
  intended_use: "general",
});

function Specification({ flour }: { flour: Schemas["FlourView"] }) {
  const revisions = useQuery({
    queryKey: ["specifications", flour.id],
    queryFn: () =>
      answer(
        api.GET("/api/v1/flours/{flour_id}/specifications", {
          params: { path: { flour_id: flour.id } },
        }),
      ),
  }).data;
  const [shownId, show] = useState<string>();
  const newest = revisions?.[0];
  const id = shownId ?? newest?.id;
  const shown = useQuery({
    queryKey: ["specification", id],
    enabled: id !== undefined,
    placeholderData: keepPreviousData,
    queryFn: () =>
      answer(
        api.GET("/api/v1/specifications/{revision_id}", {
          params: { path: { revision_id: id ?? "" } },
        }),
      ),
  }).data;
  const format = useFormat();
  const key = `ironpeel.specification.${flour.id}`;
  const [typing, type, forget] = useKept(key, begin);
  const draft = typing.limits;
  const recorded = shown?.limits.map((limit) => typed(limit, format)) ?? [];
  const limits = draft ?? recorded;
  // What is edited builds on the revision chosen, not on the one shown while that is under way.
  const known = revisions && (!id || shown?.revision.id === id);
  const setDraft = (change: (limits: TypedLimit[]) => TypedLimit[]) =>
    type((now) => ({ limits: change(now.limits ?? recorded) }));
  return (
    <>
      <div className="mt-4 flex flex-wrap items-end gap-x-6 gap-y-2">
        <h2 className="text-lg">Specification</h2>
        {revisions && revisions.length > 0 && (
          <Select
            label="revision"
            place="beside"
            className="screen-only text-sm font-semibold"
            value={id ?? ""}
            options={revisions.map((one) => [
              one.id,
              `${one.number}, ${one.made_by}: ${one.reason}`,
            ])}
            disabled={draft !== undefined}
            title={draft && "Save or discard the edits first"}
            onSet={show}
          />
        )}
        <span className="screen-only ml-auto flex gap-5 text-sm">
          <button type="button" className="link" onClick={() => window.print()}>
            Print
          </button>
          {id && (
            <a className="link" href={`/api/v1/specifications/${id}/csv`}>
              Save as CSV for the mill
            </a>
          )}
        </span>
      </div>
      <p className="hidden text-sm print:block">
        {flour.name}, {flour.mill}. Revision {shown?.revision.number} of{" "}
        {shown?.revision.made_at.slice(0, 10)}.
      </p>
      {revisions?.length === 0 && !draft && (
        <p className="mt-2">
          There is no requirement for {flour.name} yet. Take proposals from below, or{" "}
          <button
            type="button"
            className="link"
            onClick={() => setDraft(() => [emptyLimit({ property: "moisture" })])}
          >
            begin with moisture
          </button>
          .
        </p>
      )}
      {limits.length > 0 && (
        <fieldset className="contents" disabled={!draft && !known}>
          <LimitRows limits={limits} onChange={setDraft} />
        </fieldset>
      )}
      {draft && (
        <Save
          flour={flour}
          number={(newest?.number ?? 0) + 1}
          typing={typing}
          draftKey={key}
          onReason={(reason) => type({ reason })}
          onDone={(as) => {
            forget(as);
            show(undefined);
          }}
        />
      )}
      {revisions && revisions.length > 1 && shown && (
        <Compare revisions={revisions} shown={shown} />
      )}
      <SuggestedLimits
        flour={flour}
        disabled={!draft && !known}
        onTake={(limit) => {
          setDraft((limits) => {
            const others = limits.filter((one) => one.property !== limit.property);
            const at = limits.findIndex((one) => one.property === limit.property);
            return others.toSpliced(at < 0 ? others.length : at, 0, typed(limit, format));
          });
        }}
      />
    </>
  );
}

interface Typing {
  limits?: TypedLimit[];
  reason: string;
}

const begin = (kept?: Partial<Typing>): Typing => ({ reason: "", ...kept });

interface SaveProps {
  flour: Schemas["FlourView"];
  number: number;
  typing: Typing;
  draftKey: string;
  onReason: (reason: string) => void;
  /** Lets what was typed go, unless it was changed since it stood like this. */
  onDone: (as?: Typing) => void;
}

function Save({ flour, number, typing, draftKey, onReason, onDone }: SaveProps) {
  const { limits = [], reason } = typing;
  const { preferences } = usePreferences();
  const queries = useQueryClient();
  const save = useMutation({
    networkMode: "always",
    mutationFn: async () => {
      await record({
        path: `/api/v1/flours/${flour.id}/specifications/${crypto.randomUUID()}`,
        subject: draftKey,
        label: `specification of ${flour.name}`,
        body: {
          number,
          limits: limits.map((limit) => limitOf(limit, preferences.mark)),
          signed: { reason },
        },
        draft: { key: draftKey, as: typing },
      });
      await queries.invalidateQueries();
      onDone(typing);
    },
  });
  return (
    <Form
      className="screen-only mt-4 border-t-2 border-crust pt-3"
      error={save.error}
      onSubmit={() => save.mutate()}
    >
      <div className="flex flex-wrap items-end gap-4">
        {number > 1 && (
          <FieldText
            label="Reason for the revision"
            placeholder="the mill's new harvest"
            className="min-w-64 flex-1"
            value={reason}
            field="signed.reason"
            onChange={onReason}
          />
        )}
        <Author label="Revised by" />
        <button type="button" className="act" onClick={() => onDone()}>
          Discard
        </button>
        <button type="submit" className="act act-main" disabled={save.isPending}>
          Save revision {number}
        </button>
      </div>
    </Form>
  );
}

function Compare({
  revisions,
  shown,
}: {
  revisions: Schemas["Revision"][];
  shown: Schemas["SpecificationView"];
}) {
  const format = useFormat();
  const { search } = useScenario();
  const earlier = revisions.filter((one) => one.number < shown.revision.number);
  const wanted = new URLSearchParams(search).get("before");
  const [picked, pick] = useState(wanted);
  const before = earlier.find((one) => one.id === picked)?.id ?? earlier[0]?.id;
  const rows = useQuery({
    queryKey: ["compared", shown.revision.id, before],
    enabled: before !== undefined,
    queryFn: () =>
      answer(
        api.GET("/api/v1/specifications/{revision_id}/compare", {
          params: { path: { revision_id: shown.revision.id }, query: { before: before ?? "" } },
        }),
      ),
  }).data;
  if (!before) return null;
  const words = (limit: Schemas["Limit"] | null | undefined) =>
    limit
      ? [
          limit.min != null && `≥ ${format.plain(limit.min)}`,
          limit.target != null && `~ ${format.plain(limit.target)}`,
          limit.max != null && `≤ ${format.plain(limit.max)}`,
          !limit.must && "should",
        ]
          .filter(Boolean)
          .join("  ")
      : "–";
  return (
    <section aria-labelledby="compared" className="screen-only mt-6">
      <h2 id="compared">
        Revision {shown.revision.number} against{" "}
        <Select
          label="Earlier revision"
          place="hidden"
          value={before}
          options={earlier.map((one) => [one.id, `revision ${one.number}`])}
          onSet={pick}
        />
      </h2>
      {rows?.length === 0 && <p className="mt-1">No limit differs.</p>}
      {rows && rows.length > 0 && (
        <table className="mt-1 w-full max-w-3xl">
          <thead>
            <tr className="border-b border-ink">
              <th scope="col">property</th>
              <th scope="col">was</th>
              <th scope="col">is</th>
              <th scope="col">so</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.property} className="border-b border-hair">
                <th scope="row" className="py-1 text-base font-normal text-ink">
                  {row.label} <span className="text-xs text-iron">{row.unit}</span>
                </th>
                <td className="whitespace-pre">{words(row.before)}</td>
                <td className="font-semibold whitespace-pre">{words(row.after)}</td>
                <td className="text-crust">{row.message}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

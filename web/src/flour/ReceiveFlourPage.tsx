import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { answer, api, type Schemas } from "../api/client";
import { useGoOn } from "../shell/useGoOn";
import { record } from "../api/outbox";
import { useScenario } from "../scenario/ScenarioProvider";
import { writeScenario } from "../scenario/scenario";
import { VERDICT } from "../shell/verdict";
import { usePreferences } from "../units/preferences";
import { CertificateTable } from "./CertificateTable";
import {
  canUndo,
  changeDraft,
  changeRows,
  clearDraft,
  INTAKE_KEY,
  recordedDraft,
  undoDraft,
  useDraft,
  type Draft,
} from "./draft";
import { BASES } from "./bases";
import { DropCertificate } from "./DropCertificate";
import { ReceiveFlourHead } from "./ReceiveFlourHead";
import { RowSuggestions, type RowEdit } from "./RowCells";
import { useFlours } from "../scenario/useFlours";
import { Faults } from "../form/Faults";

const EMPTY_ROW = { property: "", value: "", unit: "", basis: "", method: "" };
const isBlank = (row: Schemas["Row"]) => Object.values(row).every((cell) => cell.trim() === "");
/** Takes in a certificate: from a file or typed, corrected inline, judged as it is typed. */
export function ReceiveFlourPage() {
  const draft = useDraft();
  const flours = useFlours();
  const judged = useJudged(draft);
  const save = useSaveLot(draft);

  // The product a certificate names is one of our flours, if we have it.
  const named = flours?.find((flour) =>
    draft.from.toLowerCase().includes(flour.name.toLowerCase()),
  );
  const flourId = draft.flourId ?? named?.id ?? null;
  useEffect(() => {
    if (draft.flourId === null && named) changeDraft({ flourId: named.id });
  }, [draft.flourId, named]);

  const edit: RowEdit = {
    set: (at, change) =>
      changeRows((rows) => rows.map((row, i) => (i === at ? { ...row, ...change } : row))),
    remove: (at) => changeRows((rows) => rows.filter((_, i) => i !== at)),
    add: (rule) => changeRows((rows) => [...rows, rule ? rowFor(rule) : EMPTY_ROW]),
  };
  const certificate = judged && {
    ...judged,
    rows: draft.rows.map((written, at) => ({
      ...(judged.rows[at] ?? { property: null, reading: null, fault: null }),
      written,
      // A row just added is not at fault yet, and what stands below it stays where it is.
      ...(isBlank(written) && { fault: null }),
    })),
  };
  const faults = judged?.rows.filter((row) => row.fault).length ?? 0;
  const assessment = judged?.assessment;
  const rules = assessment?.checks ?? [];
  return (
    <>
      <div className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1>{draft.number === 1 ? "Import certificate" : `Correct ${draft.code}`}</h1>
          <p className="text-sm text-iron">
            {draft.from ? `From ${draft.from}. ` : ""}Kept in this browser until it is recorded.
          </p>
        </div>
        {assessment && draft.rows.length > 0 && (
          <p className={VERDICT[assessment.verdict].colour}>
            <span className="figure text-3xl">
              {VERDICT[assessment.verdict].mark} {VERDICT[assessment.verdict].word}
            </span>
          </p>
        )}
        <div className="flex gap-3">
          <button type="button" className="act" onClick={undoDraft} disabled={!canUndo()}>
            Undo
          </button>
          <button type="button" className="act" onClick={clearDraft}>
            Clear
          </button>
        </div>
      </div>
      <Faults error={save.error}>
        <ReceiveFlourHead draft={draft} flourId={flourId} flours={flours ?? []} />
        {draft.notes.map((note) => (
          <p key={note} className="mt-2 text-sm text-crust">
            {note}.
          </p>
        ))}
        <RowSuggestions />
        <datalist id="properties">
          {rules.map((rule) => (
            <option key={rule.property} value={rule.label} />
          ))}
        </datalist>
        <div className="mt-4">
          {certificate && (
            <CertificateTable
              certificate={certificate}
              edit={edit}
              excerpts={draft.rows.map((row) => row.excerpt)}
            />
          )}
        </div>
        <div className="mt-3 flex flex-wrap items-center gap-4">
          <button type="button" className="act" onClick={() => edit.add()}>
            Add a row
          </button>
          {draft.rows.length === 0 && rules.length > 0 && (
            <button
              type="button"
              className="act"
              onClick={() => changeDraft({ rows: rules.map((rule) => rowFor(rule)) })}
            >
              A row for each property of the specification
            </button>
          )}
          <button
            type="button"
            className="act act-main ml-auto"
            disabled={save.isPending || draft.rows.length === 0 || faults > 0 || flourId === null}
            onClick={() => save.mutate(flourId)}
          >
            {save.isPending ? "Saving …" : draft.number === 1 ? "Save lot" : "Save correction"}
          </button>
        </div>
        <p className="mt-2 text-right text-sm text-iron">
          {faults > 0 &&
            `${faults} ${faults === 1 ? "row" : "rows"} to put right or remove before it is recorded.`}
          {faults === 0 && flourId === null && "Choose the flour it is before it is recorded."}
        </p>
      </Faults>
      {draft.rows.length === 0 && (
        <div className="max-w-xl">
          <DropCertificate />
        </div>
      )}
    </>
  );
}

const rowFor = ({ label, unit, basis }: Schemas["RequirementCheck"]) => ({
  property: label,
  value: "",
  unit,
  basis: basis ? BASES[basis] : "",
  method: "",
});

function useJudged({ flourId, lotId, milled, delivered, rows }: Draft) {
  const decimal_mark = usePreferences().preferences.mark;
  const body: Schemas["AssessInput"] = {
    flour_id: flourId,
    lot_id: lotId,
    milled,
    delivered,
    decimal_mark,
    rows,
  };
  return useQuery({
    queryKey: ["judged", body],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => answer(api.POST("/api/v1/certificates/assessment", { body, signal })),
  }).data;
}

function useSaveLot(draft: Draft) {
  const { preferences } = usePreferences();
  const { newest } = useScenario();
  const queries = useQueryClient();
  const goOn = useGoOn();
  return useMutation({
    networkMode: "always",
    mutationFn: async (flourId: string | null) => {
      const { code, milled, delivered, tonnes, number, rows, reason } = draft;
      const lot = await record<Schemas["LotView"]>({
        path: `/api/v1/lots/${draft.lotId}/revisions/${draft.revisionId}`,
        label: `lot ${code}`,
        subject: draft.lotId,
        body: {
          flour_id: flourId,
          code,
          milled,
          delivered,
          tonnes,
          number,
          decimal_mark: preferences.mark,
          rows,
          signed: { reason },
        },
        draft: { key: INTAKE_KEY, as: draft },
      });
      recordedDraft(draft, lot);
      await Promise.all([
        queries.invalidateQueries({ queryKey: ["lots"] }),
        queries.invalidateQueries({ queryKey: ["lots of"] }),
        queries.invalidateQueries({ queryKey: ["lot", lot.id] }),
      ]);
      const search = writeScenario({ ...newest().scenario, lot: lot.id }).toString();
      goOn({ pathname: "/flour", search });
    },
  });
}

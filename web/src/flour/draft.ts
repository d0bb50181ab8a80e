import { useSyncExternalStore } from "react";
import type { Schemas } from "../api/client";
import { store, stored } from "../storage/stored";

/** A row as it is typed, with the line of the file it was read from where that has no columns. */
export type DraftRow = Schemas["Row"] & { excerpt?: string | undefined };

/** A certificate being taken in: kept in the browser, so that a reload loses nothing. */
export interface Draft {
  /** Made here, so that sending twice stores once. */
  lotId: string;
  revisionId: string;
  /** 1 for a new lot; for a correction the number after the one that was looked at. */
  number: number;
  flourId: string | null;
  /** The mill and product as the file had them. */
  from: string;
  code: string;
  milled: string;
  delivered: string;
  tonnes: string;
  reason: string;
  rows: DraftRow[];
  notes: string[];
}

export const INTAKE_KEY = "ironpeel.intake";

const EMPTY: Omit<Draft, "lotId" | "revisionId"> = {
  number: 1,
  flourId: null,
  from: "",
  code: "",
  milled: "",
  delivered: "",
  tonnes: "",
  reason: "",
  rows: [],
  notes: [],
};

const fresh = (start: Partial<Draft> = {}): Draft => ({
  ...EMPTY,
  lotId: crypto.randomUUID(),
  revisionId: crypto.randomUUID(),
  ...start,
});

function begin(): Draft {
  const kept = stored<Partial<Draft>>(INTAKE_KEY);
  return kept?.lotId ? fresh(kept) : fresh();
}

let now = begin();
let past: Draft[] = [];
const listeners = new Set<() => void>();

function put(next: Draft, history: Draft[]) {
  now = next;
  past = history;
  store(INTAKE_KEY, next);
  listeners.forEach((listener) => listener());
}

export const changeDraft = (change: Partial<Draft>) =>
  put({ ...now, ...change }, [...past.slice(-99), now]);

/** Changes the newest rows. */
export const changeRows = (change: (rows: Draft["rows"]) => Draft["rows"]) =>
  changeDraft({ rows: change(now.rows) });

export const undoDraft = () => {
  const last = past.at(-1);
  if (last) put(last, past.slice(0, -1));
};

export const canUndo = () => past.length > 0;

/** Begins with nothing; what was being typed can be had back by undo. */
export const clearDraft = () => put(fresh(), [...past, now]);

/** Lets go what was recorded; what was typed on meanwhile becomes its correction. */
export function recordedDraft(sent: Draft, lot: Schemas["LotView"]) {
  if (now.lotId !== sent.lotId) return;
  if (now === sent) put(fresh(), []);
  else put({ ...now, number: lot.revision.number + 1, revisionId: crypto.randomUUID() }, []);
}

/** A new draft from a file. What was being typed can be had back by undo. */
export function startFrom(
  { head, rows: read, excerpts, notes }: Schemas["CertificateFile"],
  name: string,
) {
  const from = [head.mill, head.product].filter(Boolean).join(", ");
  const rows = read.map((row, at) => ({ ...row, excerpt: excerpts[at] }));
  const { lot: code, milled, delivered, tonnes } = head;
  const start = { from: from || name, code, milled, delivered, tonnes, rows, notes };
  put(fresh(start), [...past, now]);
}

/** A draft that corrects a lot on record. What was being typed can be had back by undo. */
export function startCorrection(lot: Schemas["LotView"], tonnes: string) {
  put(
    fresh({
      lotId: lot.id,
      number: lot.revision.number + 1,
      flourId: lot.flour.id,
      code: lot.code,
      milled: lot.milled_on ?? "",
      delivered: lot.delivered_on ?? "",
      tonnes,
      rows: lot.certificate.rows.map((row) => row.written),
    }),
    [...past, now],
  );
}

export function useDraft(): Draft {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => now,
  );
}

import { useRef, useState } from "react";
import { asProblem, type Schemas } from "../api/client";
import type { Mark } from "../units/number";
import { readText } from "./readText";

/** Lots sent at once. */
const PART = 500;

export interface ImportState {
  running: boolean;
  cancelled: boolean;
  /** Lots sent, of all. */
  done: number;
  all: number;
  added: number;
  same: number;
  faults: Schemas["ImportFault"][];
  /** Why it stopped before its end. */
  message?: string;
}

interface How {
  mapping: Schemas["Mapping"] | undefined;
  mill: string;
  /** Where the file leaves it open. */
  decimal_mark: Mark;
}

/** Sends a file in parts, so that it shows how far it is and can be stopped between any two. */
export function useImport(onDone: () => void) {
  const [state, setState] = useState<ImportState>();
  const stopped = useRef(false);
  const start = async (file: File, { mapping, mill, decimal_mark }: How) => {
    stopped.current = false;
    const parts = await partsOf(file);
    if (typeof parts === "string") {
      return setState({
        running: false,
        cancelled: false,
        done: 0,
        all: 0,
        added: 0,
        same: 0,
        faults: [],
        message: parts,
      });
    }
    let now: ImportState = {
      running: true,
      cancelled: false,
      done: 0,
      all: parts.reduce((sum, part) => sum + part.rows, 0),
      added: 0,
      same: 0,
      faults: [],
    };
    setState(now);
    for (const part of parts) {
      if (stopped.current) break;
      const sent = await send({
        ...part.body,
        mapping,
        mill,
        decimal_mark,
        first_row: now.done + 1,
      });
      if (typeof sent === "string") {
        now = { ...now, running: false, message: sent };
        setState(now);
        return onDone();
      }
      now = {
        ...now,
        done: now.done + part.rows,
        added: now.added + sent.added,
        same: now.same + sent.same,
        faults: [...now.faults, ...sent.faults],
      };
      setState(now);
    }
    setState({ ...now, running: false, cancelled: stopped.current });
    onDone();
  };
  return { state, start, cancel: () => (stopped.current = true), reset: () => setState(undefined) };
}

interface Part {
  rows: number;
  body: { table?: string; lots?: unknown[] };
}

/** The file cut at its rows, each part under the header; or what is wrong with it. */
async function partsOf(file: File): Promise<Part[] | string> {
  const text = await readText(file);
  if (file.name.toLowerCase().endsWith(".json")) {
    try {
      const lots: unknown = JSON.parse(text);
      if (!Array.isArray(lots)) return "The file holds no list of lots";
      return chunks(lots).map((part) => ({ rows: part.length, body: { lots: part } }));
    } catch {
      return "The file is not JSON";
    }
  }
  const [header = "", ...rows] = rowsOf(text);
  return chunks(rows).map((part) => ({
    rows: part.length,
    body: { table: [header, ...part].join("\n") },
  }));
}

/** Lines that belong together, where a quoted cell runs over several; empty ones left out. */
function rowsOf(text: string): string[] {
  const rows: string[] = [];
  let open = "";
  for (const line of text.split(/\r?\n/)) {
    open = open ? `${open}\n${line}` : line;
    if ((open.split('"').length - 1) % 2 === 1) continue;
    if (open.trim()) rows.push(open);
    open = "";
  }
  if (open.trim()) rows.push(open);
  return rows;
}

function chunks<T>(all: T[]): T[][] {
  return Array.from({ length: Math.ceil(all.length / PART) }, (_, at) =>
    all.slice(at * PART, (at + 1) * PART),
  );
}

async function send(body: unknown): Promise<Schemas["ImportReport"] | string> {
  const response = await fetch("/api/v1/imports/lots", {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify(body),
  }).catch(() => undefined);
  if (!response || response.status >= 500) {
    return "The server does not answer. What was recorded stays; take the file in again, nothing is doubled";
  }
  const read: unknown = await response.json().catch(() => undefined);
  return response.ok ? (read as Schemas["ImportReport"]) : asProblem(read, response.status).detail;
}

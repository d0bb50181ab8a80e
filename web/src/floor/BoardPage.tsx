import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { BoardClock } from "../figures/BoardClock";
import { useMay, useSession } from "../session/session";
import { useFormat } from "../units/format";
import { FloorFrame } from "./FloorFrame";
import { limitNear } from "./limit";
import { BOARD, runOf } from "./run";
import { stamp } from "./stamp";
import { useNow } from "./useNow";

type Batch = Schemas["BoardBatch"];

/** What is planned, running, held and finished, line by line. */
export function BoardPage() {
  return (
    <FloorFrame>
      <BoardLines />
    </FloorFrame>
  );
}

/** What to do with a batch next, as one would say it. */
function nextOf(batch: Batch): string {
  const stage = batch.stages.find((one) => one.stage === batch.next?.stage);
  if (batch.state === "held") {
    return `${batch.product} is held${batch.held_reason ? `: ${batch.held_reason}` : ""}`;
  }
  if (!batch.started_at) return `start ${batch.product}`;
  if (!stage) return `finish ${batch.product}`;
  const fold = batch.next?.fold;
  if (fold) return `${batch.product}: set of folds ${fold.set} of ${fold.sets}`;
  const sign = stage.ends_when ? `, ${stage.ends_when}` : "";
  return `${batch.product}: ${stage.label.toLowerCase()} ends${sign}`;
}

/** When the next thing is to be done: a set of folds before its stage ends. */
const dueAt = (batch: Batch) => batch.next?.fold?.due_at ?? batch.next?.due_at;

const minutesLate = (batch: Batch, now: number) => {
  const due = dueAt(batch);
  return due ? (now - Date.parse(due)) / 60_000 : 0;
};

/** How near a batch's open stage is to its longest, once that is worth a word. */
const limitOf = (batch: Batch, now: number) =>
  limitNear(
    batch.times.find((one) => one.stage === batch.next?.stage),
    now,
  );

function BoardLines() {
  const format = useFormat();
  const queries = useQueryClient();
  const now = useNow(10_000);
  const may = useMay("record");
  const session = useSession();
  const { data, error } = useQuery({ ...BOARD, refetchInterval: 60_000 });
  // Whatever is open is kept here, should the connection be lost.
  useEffect(() => {
    const open = data?.lines.flatMap((line) => line.batches) ?? [];
    for (const batch of open) {
      if (batch.ended_at == null) void queries.prefetchQuery(runOf(batch.id));
    }
  }, [data, queries]);
  if (!data) {
    return (
      <div className="py-10 text-xl" role={error ? "alert" : undefined}>
        <h1>Board</h1>
        <p>{error ? "The server does not answer, and nothing was kept here yet." : "Looking …"}</p>
      </div>
    );
  }
  const open = data.lines
    .flatMap((line) => line.batches.map((batch) => ({ line: line.line, batch })))
    .filter(({ batch }) => batch.next);
  // Late ones first.
  const next = [...open].sort(
    (one, other) => minutesLate(other.batch, now) - minutesLate(one.batch, now),
  );
  const late = next.filter(({ batch }) => minutesLate(batch, now) > 1 && batch.state !== "held");
  const first = late[0] ?? next.find(({ batch }) => batch.state !== "held") ?? next[0];
  const stopLine = (line: Schemas["BoardLine"]) => {
    for (const batch of line.batches.filter((one) => one.state === "running")) {
      const person = session?.station ? (session.person?.id ?? undefined) : undefined;
      void stamp(
        batch.id,
        `${batch.product}: held`,
        { kind: "hold", reason: `${line.line} stopped` },
        person,
      );
    }
  };
  return (
    <>
      <h1 className="sr-only">Board</h1>
      {first ? (
        <p className="border-b-2 border-ink pb-3 text-3xl leading-snug">
          {late.length > 0 && (
            <b className="text-stop">{format.count(late.length, "batch", "batches")} late. </b>
          )}
          Next on {first.line}:{" "}
          <Link to={`/batches/${first.batch.id}/run`} className="link font-semibold">
            {nextOf(first.batch)}
          </Link>
          {first.batch.next && `, ${format.time(dueAt(first.batch) ?? "")}`}.
        </p>
      ) : (
        <p className="py-6 text-2xl">
          Nothing is planned or running. Plan a batch under{" "}
          <Link to="/floor" className="link">
            Mixing sheet
          </Link>
          ; it stands here until it is finished.
        </p>
      )}
      {data.lines.map((line) => {
        const running = line.batches.filter((batch) => batch.state === "running");
        return (
          <section key={line.line_id} aria-label={line.line} className="mt-5">
            <div className="flex flex-wrap items-center gap-x-6">
              <h2 className="text-2xl">{line.line}</h2>
              <p className="text-lg text-iron">
                {format.count(running.length, "batch", "batches")} running
              </p>
              {may && running.length > 0 && (
                <button
                  type="button"
                  className="act ml-auto min-h-14 border-stop text-lg text-stop"
                  onClick={() => stopLine(line)}
                >
                  Line stoppage: hold {format.count(running.length, "batch", "batches")}
                </button>
              )}
            </div>
            <BoardClock line={line} now={now} />
          </section>
        );
      })}
      <NextTable rows={next} now={now} />
    </>
  );
}

function NextTable({ rows, now }: { rows: { line: string; batch: Batch }[]; now: number }) {
  const format = useFormat();
  if (rows.length === 0) return null;
  return (
    <section className="mt-6">
      <h2 className="text-2xl">What to do, late first</h2>
      <table className="w-full text-xl">
        <thead>
          <tr>
            <th scope="col">when</th>
            <th scope="col">line</th>
            <th scope="col">what</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ line, batch }) => {
            const late = minutesLate(batch, now);
            return (
              <tr key={batch.id} className="border-t border-hair">
                <td className="figure py-2 whitespace-nowrap">
                  {format.time(dueAt(batch) ?? "")}
                  {late > 1 && batch.state !== "held" && (
                    <b className="text-stop"> {format.minutes(Math.round(late))} late</b>
                  )}
                </td>
                <td>{line}</td>
                <td>
                  <Link to={`/batches/${batch.id}/run`} className="link flex min-h-14 items-center">
                    {nextOf(batch)}
                    {batch.unplaced > 0 && `; ${batch.unplaced} found no place`}
                    <Limit min={limitOf(batch, now)} />
                  </Link>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}

/** That a stage nears its longest, or is past it. */
function Limit({ min }: { min: number | undefined }) {
  const format = useFormat();
  if (min === undefined) return null;
  return (
    <b role="status" className="ml-3 text-stop">
      {min > 0
        ? `${format.minutes(min)} to its limit`
        : `beyond its limit for ${format.minutes(-min)}`}
    </b>
  );
}

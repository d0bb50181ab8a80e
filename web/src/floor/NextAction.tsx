import { useState } from "react";
import type { Schemas } from "../api/client";
import { useFormat, type Format } from "../units/format";
import { FinishForm } from "./FinishForm";
import { limitNear } from "./limit";
import { ENDED_BY, FOLDS, signsOf, type Run, type Stage } from "./run";
import type { Said } from "./stamp";
import { useNow } from "./useNow";

interface Props {
  run: Run;
  may: boolean;
  write: (label: string, said: Said) => void;
}

/** What is weighed next, as one would say it. */
function toWeigh(format: Format, lines: Schemas["WeighedLine"][]): string {
  const said = lines.map(
    (line) =>
      `${format.mass(line.kg, line.division_kg)} ${line.name.toLowerCase()}` +
      (line.is_water && !line.is_ice && line.temperature_c != null
        ? ` at ${format.temperature(line.temperature_c)}`
        : ""),
  );
  return said.join(", ");
}

/** The lines that are open at a stage: its own, and before the first those of what is made before. */
export function linesAt(run: Run, stage: Stage | undefined): Schemas["WeighedLine"][] {
  const first = run.stages[0]?.stage;
  return run.report.lines.filter((line) =>
    line.stage == null ? stage?.stage === first : line.stage === stage?.stage,
  );
}

/** The stage that is open, or to be begun. */
export const currentOf = (run: Run): Stage | undefined =>
  run.record.started_at
    ? run.stages.find((stage) => stage.stage === run.report.next?.stage)
    : undefined;

/** One next action as a sentence, and one stamp. */
export function NextAction({ run, may, write }: Props) {
  const format = useFormat();
  const now = useNow(1000);
  const stage = currentOf(run);
  const [sign, setSign] = useState<Schemas["EndedBy"]>();
  const over = run.state === "finished" || run.state === "scrapped";
  const due = run.report.next ? Date.parse(run.report.next.due_at) : now;
  const late = Math.round((now - due) / 60_000);
  const open = linesAt(run, stage ?? run.stages[0]).filter((line) => line.weighed_kg == null);
  if (over) {
    return (
      <section aria-label="Next action" className="border-2 border-hair p-5 text-2xl">
        {run.state === "finished" ? "Finished" : "Scrapped"}
        {run.record.ended_at && ` at ${format.time(run.record.ended_at)}`}.{" "}
        {run.state === "scrapped" && "Bake live dough before it is thrown away: it goes on rising."}
      </section>
    );
  }
  const limit = stage && run.report.times.find((one) => one.stage === stage.stage);
  const near = limitNear(limit, now);
  const fold = run.report.next?.fold;
  const when =
    late > 0 ? (
      <b className="text-stop">{format.minutes(late)} late</b>
    ) : (
      <span>
        at {format.time(new Date(due).toISOString())}, in {format.minutes(-late)}
      </span>
    );
  const press = () => {
    if (run.state === "held") return write("resumed", { kind: "resume" });
    if (!run.record.started_at) return write("started", { kind: "start" });
    if (!stage) return;
    const by = sign ?? signsOf(stage)[0];
    write(`${stage.label} ended`, {
      kind: "stage_end",
      stage: stage.stage,
      ...(by && { ended_by: by }),
    });
    setSign(undefined);
  };
  const name =
    run.state === "held"
      ? "Resume"
      : run.record.started_at
        ? stage
          ? `${stage.label} done`
          : undefined
        : "Start";
  return (
    <section aria-label="Next action" className="border-2 border-ink bg-sheet p-5">
      <p className="text-3xl leading-snug" aria-live="polite">
        {run.state === "held" ? (
          <>
            <b className="text-stop">Held</b>
            {run.record.held_since && ` since ${format.time(run.record.held_since)}`}
            {run.record.held_reason && `: ${run.record.held_reason}`}.
          </>
        ) : open.length > 0 ? (
          <>
            {run.record.started_at ? "" : "Start, then weigh "}
            {run.record.started_at && "Weigh "}
            {toWeigh(format, open.slice(0, 3))}
            {open.length > 3 && `, and ${open.length - 3} more`}.
          </>
        ) : stage ? (
          <>
            <b>{stage.label}</b>
            {stage.temperature_c != null && ` at ${format.temperature(stage.temperature_c, 0)}`}
            {stage.ends_when && `, until ${stage.ends_when}`}.
          </>
        ) : run.record.started_at ? (
          "Count the pieces and finish the batch."
        ) : (
          "Start the batch."
        )}
      </p>
      <p className="mt-1 text-2xl">
        {stage && (open.length > 0 || run.state === "held") && <b>{stage.label}: </b>}
        {run.record.started_at ? stage ? <>ends {when}</> : null : <>planned {when}</>}
        {limit && `; at the latest ${format.time(limit.limit_at)}`}
      </p>
      {near !== undefined && (
        <p role="status" className="mt-1 text-2xl font-semibold text-stop">
          {near > 0
            ? `${format.minutes(near)} to its limit.`
            : `Beyond its limit for ${format.minutes(-near)}.`}
        </p>
      )}
      {fold && run.state === "running" && (
        <div className="mt-2 flex flex-wrap items-center gap-4 text-2xl">
          <p aria-live="polite">
            Set of folds {fold.set} of {fold.sets} at{" "}
            <b className={Date.parse(fold.due_at) < now ? "text-stop" : ""}>
              {format.time(fold.due_at)}
            </b>
            .
          </p>
          {may && (
            <button
              type="button"
              className="act min-h-16 text-xl"
              onClick={() =>
                write(`set of folds ${fold.set}`, {
                  kind: "note",
                  stage: stage?.stage,
                  of: FOLDS,
                  text: `Set of folds ${fold.set} of ${fold.sets} done`,
                })
              }
            >
              Set {fold.set} done
            </button>
          )}
        </div>
      )}
      {run.stages[run.stages.findIndex((one) => one.stage === stage?.stage)]?.cautions.map(
        (caution) => (
          <p key={caution} className="mt-1 text-lg">
            <b>Caution:</b> {format.text(caution)}
          </p>
        ),
      )}
      {may && name && (
        <button
          type="button"
          className="act act-main mt-4 min-h-24 w-full text-4xl"
          onClick={press}
        >
          {name}
        </button>
      )}
      {may && stage && run.state === "running" && (
        <div role="group" aria-label="Ended by" className="mt-2 flex flex-wrap gap-2">
          {signsOf(stage).map((one) => (
            <button
              key={one}
              type="button"
              className={`act min-h-14 text-lg ${(sign ?? signsOf(stage)[0]) === one ? "border-crust text-crust" : "border-hair"}`}
              aria-pressed={(sign ?? signsOf(stage)[0]) === one}
              onClick={() => setSign(one)}
            >
              {ENDED_BY[one]}
            </button>
          ))}
        </div>
      )}
      {may && run.record.started_at && !stage && run.state !== "held" && (
        <FinishForm run={run} write={write} />
      )}
    </section>
  );
}

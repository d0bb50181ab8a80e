import { FOLDS, type Run } from "./run";
import type { Stamp } from "./stamp";

const overOf = (state: Run["state"]) => state === "finished" || state === "scrapped";

/**
 * A batch as it stands with what the server has not heard yet: enough to go on by without a
 * connection. What it all comes to is the server's to say.
 */
export function withStamps(run: Run, stamps: Stamp[]): Run {
  const undone = new Set(stamps.flatMap((one) => one.corrects ?? []));
  const placed = run.record.placed.filter((one) => !undone.has(one.event));
  const told = stamps.filter((one) => one.kind !== "correct" && !undone.has(one.id));
  if (stamps.length === 0) return run;
  const ended = new Map(
    placed
      .filter((one) => one.kind === "stage_end" && one.stage)
      .map((one) => [one.stage ?? "", one.happened_at]),
  );
  let { state } = run;
  let started = run.record.started_at;
  let held = run.record.held_since;
  let reason = run.record.held_reason;
  const lines = run.report.lines.map((line) =>
    line.event && undone.has(line.event) ? { ...line, weighed_kg: null, event: null } : line,
  );
  for (const id of undone) {
    const was = run.record.placed.find((one) => one.event === id);
    if (was?.kind === "start") [state, started] = ["planned", null];
    if (was?.kind === "hold") [state, held, reason] = ["running", null, null];
    if (was?.kind === "finish" || was?.kind === "scrap") state = "running";
  }
  for (const one of told) {
    if (one.kind === "start" && state === "planned")
      [state, started] = ["running", one.happened_at];
    if (one.kind === "hold") [state, held, reason] = ["held", one.happened_at, one.reason ?? null];
    if (one.kind === "resume") [state, held, reason] = ["running", null, null];
    if (one.kind === "finish") state = "finished";
    if (one.kind === "scrap") state = "scrapped";
    if (one.kind === "stage_end" && one.stage) ended.set(one.stage, one.happened_at);
    if (one.kind === "reading" && one.quantity === "mass_kg") {
      const at = lines.findIndex(
        (line) => line.of === one.of && (line.stage ?? undefined) === (one.stage ?? undefined),
      );
      const line = lines[at];
      if (line && typeof one.value === "number") {
        lines[at] = { ...line, weighed_kg: one.value, event: one.id };
      }
    }
  }
  const times = run.report.times.map((time) => ({
    ...time,
    ended_at: ended.get(time.stage) ?? null,
  }));
  const lastEnded = times.reduce((at, time, i) => (time.ended_at ? i : at), -1);
  const current = run.stages[lastEnded + 1];
  const begun = lastEnded < 0 ? started : times[lastEnded]?.ended_at;
  const after = (min: number) => (begun ? Date.parse(begun) + min * 60_000 : undefined);
  const due = current && after(current.minutes);
  const folded = [...placed, ...told].filter(
    (one) => one.kind === "note" && one.of === FOLDS && one.stage === current?.stage,
  ).length;
  const fold = after(current?.folds_at_min[folded] ?? NaN);
  return {
    ...run,
    state,
    record: {
      ...run.record,
      state,
      started_at: started,
      held_since: held,
      held_reason: reason,
      placed: [
        ...placed,
        ...told.map(({ id, ...said }) => ({ ...said, event: id, corrected: false })),
      ],
      undoable: [...run.record.undoable, ...told.map((one) => one.id)],
    },
    report: {
      ...run.report,
      lines,
      times,
      next: overOf(state)
        ? null
        : {
            stage: started && current ? current.stage : null,
            due_at: new Date(due ?? Date.parse(run.planned_for)).toISOString(),
            late_min: 0,
            fold:
              started && current && fold
                ? {
                    set: folded + 1,
                    sets: current.folds_at_min.length,
                    due_at: new Date(fold).toISOString(),
                  }
                : null,
          },
    },
  };
}

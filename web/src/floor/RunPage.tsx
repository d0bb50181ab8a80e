import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { isFinal } from "../api/client";
import { useMay, useSession } from "../session/session";
import { useFormat } from "../units/format";
import { FloorFrame } from "./FloorFrame";
import { NextAction } from "./NextAction";
import { RunActions } from "./RunActions";
import { RunFermentation } from "./RunFermentation";
import { RunHistory, UndoLast } from "./RunHistory";
import { RunRecovery } from "./RunRecovery";
import { RunStages } from "./RunStages";
import { RunReport } from "./RunReport";
import { withStamps } from "./pending";
import { runOf } from "./run";
import { stamp, useStamps, type Said } from "./stamp";
import { WeighLines } from "./WeighLines";

/** A batch at the mixer: what is next, large; what was, small; what comes, quiet. */
export function RunPage() {
  const { id = "" } = useParams();
  return (
    <FloorFrame>
      <RunOf key={id} id={id} />
    </FloorFrame>
  );
}

function RunOf({ id }: { id: string }) {
  const format = useFormat();
  const session = useSession();
  const may = useMay("record");
  const { data, error } = useQuery(runOf(id));
  const stamps = useStamps(id, data?.recorded);
  if (!data) {
    return (
      <div className="py-10 text-xl" role={error ? "alert" : undefined}>
        <h1>
          {!error && "Looking for the batch …"}
          {error && (isFinal(error) ? "No such batch" : "The server does not answer")}
        </h1>
        {error && (
          <p className="mt-2">
            <Link to="/board" className="link">
              To the board
            </Link>
          </p>
        )}
      </div>
    );
  }
  const run = withStamps(data, stamps);
  const write = (label: string, said: Said) =>
    void stamp(
      id,
      `${run.product}: ${label}`,
      said,
      session?.station ? (session.person?.id ?? undefined) : undefined,
    );
  return (
    <>
      <header className="flex flex-wrap items-baseline gap-x-6">
        <h1 className="text-3xl">{run.product}</h1>
        <p className="text-xl">
          {run.line} · lot {run.lot}
        </p>
        <p className="ml-auto text-xl">
          <b className={run.state === "held" ? "text-stop" : ""}>{run.state}</b>
          {run.state === "planned" && `, for ${format.moment(run.planned_for)}`}
          {run.record.started_at && `, begun ${format.moment(run.record.started_at)}`}
        </p>
      </header>
      <div className="mt-3 grid gap-x-8 gap-y-6 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
        <div>
          <NextAction run={run} may={may} write={write} />
          <RunRecovery run={run} />
          <WeighLines run={run} may={may} write={write} />
          <RunFermentation run={run} may={may} write={write} />
        </div>
        <div>
          {may && <RunActions run={run} write={write} />}
          {may && <UndoLast run={run} write={write} />}
          <RunStages run={run} />
          <RunReport run={run} />
          <RunHistory run={run} stamps={stamps} may={may} write={write} />
        </div>
      </div>
    </>
  );
}

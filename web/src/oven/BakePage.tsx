import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { record } from "../api/outbox";
import { BakeTraceFigure } from "../figures/BakeTraceFigure";
import { Refusal } from "../form/Refusal";
import { phaseText } from "../method/programme";
import { useMay } from "../session/session";
import { DataTable, type Column } from "../table/DataTable";
import { useFormat, type Format } from "../units/format";
import { AnotherPiece } from "./AnotherPiece";
import { OvenCaution } from "./OvenCaution";

type Reading = Schemas["ProbeReading"];

const CROSSINGS: Record<Schemas["Crossing"], string> = {
  yeast_kill: "where yeast is killed",
  gelatinised: "where starch is gelatinised",
  arrival: "the arrival",
};

const columns = (format: Format, bake: number): Column<Reading>[] => {
  const crossing = (head: string, of: (probe: Reading) => number | null | undefined) => ({
    head,
    of: (probe: Reading) => of(probe) ?? "",
    show: (probe: Reading) => {
      const minute = of(probe);
      if (minute == null) return "not seen";
      return `${format.minutes(minute)}, ${format.percent((100 * minute) / bake, 0)}`;
    },
    figures: true,
  });
  return [
    { head: "probe", of: (probe) => probe.name },
    crossing("yeast killed", (probe) => probe.yeast_kill_min),
    crossing("starch gelatinised", (probe) => probe.gelatinised_min),
    crossing("arrival", (probe) => probe.arrival_min),
    {
      head: "at the end",
      of: (probe) => probe.end_c,
      show: (probe) => format.temperature(probe.end_c),
      figures: true,
    },
  ];
};

/** A bake: its trace, what it says, and the bake that would meet the target. */
export function BakePage() {
  const { id = "" } = useParams();
  const format = useFormat();
  const { data: found, error } = useQuery({
    queryKey: ["batches", "bake", id],
    queryFn: () =>
      answer(api.GET("/api/v1/bake-traces/{trace_id}", { params: { path: { trace_id: id } } })),
  });
  const queries = useQueryClient();
  const may = useMay("change");
  const slowest = found?.read.slowest ?? "";
  const move = useMutation({
    networkMode: "always",
    mutationFn: (mark: { crossing: Schemas["Crossing"]; probe?: string; minute?: number }) =>
      record<Schemas["ReadBake"]>({
        path: `/api/v1/bake-traces/${id}/marks/${crypto.randomUUID()}`,
        label: CROSSINGS[mark.crossing],
        body: { probe: slowest, ...mark },
      }),
    onSuccess: (read) => queries.setQueryData(["batches", "bake", id], read),
  });
  if (error)
    return (
      <div className="py-10" role="alert">
        <h1>No such bake</h1>
        <p className="mt-2">{error.message}.</p>
      </div>
    );
  if (!found) return <h1 className="py-10 text-base font-normal text-iron">Reading the trace …</h1>;
  const { bake, read } = found;
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-x-6">
        <h1>
          {bake.product}, {format.moment(bake.planned_for)}
        </h1>
        <p className="text-iron">
          {bake.line}, baked for {format.minutes(bake.bake_min)}
        </p>
        <p className="ml-auto flex gap-4 text-sm">
          <Link className="link" to={`/oven?of=${bake.slug}`}>
            Bakes of {bake.product}
          </Link>
          <Link className="link" to={`/results/faults?batch=${bake.batch_id}`}>
            Find the cause of a fault
          </Link>
        </p>
      </div>
      <Verdict found={found} />
      <BakeTraceFigure
        found={found}
        onMove={may ? (crossing, minute) => move.mutate({ crossing, minute }) : undefined}
      />
      <Refusal error={move.error} />
      {found.moves.map(({ id, probe, crossing, minute, made_by }) => (
        <p key={id} className="text-sm text-crust">
          {made_by} moved {CROSSINGS[crossing]} of {probe} to{" "}
          {format.minutes(Number((minute ?? 0).toFixed(2)))}.{" "}
          {may && (
            <button
              type="button"
              className="link screen-only"
              onClick={() => move.mutate({ probe, crossing })}
            >
              Put it back
            </button>
          )}
        </p>
      ))}
      {read.notes.map((note) => (
        <p key={note} className="text-sm text-crust">
          {format.text(note)}.
        </p>
      ))}
      <div className="mt-4 grid gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
        <section aria-label="Probes">
          <h2>Probes</h2>
          <DataTable
            caption="Probes"
            rows={read.probes}
            columns={columns(format, bake.bake_min)}
            rowKey={(probe) => probe.name}
            empty=""
          />
          {read.spread_min != null && (
            <p className="mt-1 text-sm text-iron">
              {format.minutes(read.spread_min)} from the first core set to the last.
            </p>
          )}
        </section>
        <div className="space-y-4">
          <Programme found={found} />
          <AnotherPiece bake={found.bake.id} />
        </div>
      </div>
      <OvenCaution />
    </>
  );
}

/** When the slowest core is set, against when it should be, and what would mend it. */
function Verdict({ found }: { found: Schemas["ReadBake"] }) {
  const format = useFormat();
  const { read, wanted, bake, damaged_starch } = found;
  const slowest = read.probes.find((probe) => probe.name === read.slowest);
  const late =
    slowest?.arrival_pct == null ? undefined : slowest.arrival_pct - read.target_arrival_pct;
  return (
    <div className="mt-2 max-w-4xl">
      <p className="text-lg">
        {late === undefined ? (
          <>
            {read.slowest} <b className="text-stop">never set</b>: bake on until the core is there.
          </>
        ) : (
          <>
            The slowest core is set after{" "}
            <b className="figure">{format.percent(slowest?.arrival_pct ?? 0)}</b> of the bake,{" "}
            <span className={late > 1 ? "text-stop" : ""}>
              {Math.abs(late) < 0.5
                ? "on target"
                : `${format.number(Math.abs(late))} points ${late > 0 ? "late" : "early"}`}
            </span>
            ; target {format.percent(read.target_arrival_pct, 0)}.
          </>
        )}
      </p>
      {damaged_starch && (
        <p className="text-iron">
          Damaged starch is over critical, so the target is sooner: {format.text(damaged_starch)}.
        </p>
      )}
      {wanted && Math.abs(wanted.longer_pct) >= 0.5 && (
        <p>
          Bake <b className="figure">{format.minutes(wanted.bake_min)}</b> instead of{" "}
          {format.minutes(bake.bake_min)}: {format.signed(wanted.longer_pct, 0)} % of bake time,{" "}
          {format.signed(wanted.capacity_pct, 0)} % of the oven's pieces an hour,{" "}
          {format.signed(wanted.loss_pts)} points of loss (house judgement).
        </p>
      )}
    </div>
  );
}

/** What the oven was set to, and when steam is to go off. */
function Programme({ found }: { found: Schemas["ReadBake"] }) {
  const format = useFormat();
  const { programme, core_c, steam, read } = found;
  return (
    <section aria-label="Bake programme">
      <h2>Bake programme</h2>
      {programme.length === 0 ? (
        <p className="text-iron">
          The method states no phases; they are written at its bake, under Method, Stages.
        </p>
      ) : (
        <ol className="list-decimal pl-5">
          {programme.map((phase, at) => (
            <li key={at}>{phaseText(phase, format)}</li>
          ))}
        </ol>
      )}
      {core_c != null && (
        <p className="mt-1">Done at a core of {format.temperature(core_c)}, never by its colour.</p>
      )}
      {read.steam_until_min != null && (
        <p className="mt-1">
          The slowest core was at {format.temperature(found.levels.steam_until_c, 0)} after{" "}
          {format.minutes(read.steam_until_min)}: steam off by then.
        </p>
      )}
      {steam && (
        <p className="mt-1 text-iron">
          By {format.count(steam.traces, "other bake")} of this product it would be{" "}
          {format.minutes(steam.steam_until_min)}, likely {format.number(steam.earliest_min)} to{" "}
          {format.minutes(steam.latest_min)}.
        </p>
      )}
    </section>
  );
}

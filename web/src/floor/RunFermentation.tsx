import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";
import { keptWhenLost } from "../api/keptAnswers";
import { JarFigure } from "../figures/JarFigure";
import { useFormat } from "../units/format";
import type { Run } from "./run";
import type { Said } from "./stamp";
import { StarterFeed } from "./StarterFeed";

interface Props {
  run: Run;
  may: boolean;
  write: (label: string, said: Said) => void;
}

const HOUR_MS = 3_600_000;
/** What a reading of a room is of where the dough was put elsewhere. */
const AROUND = "around the dough";

/** How it rises by its jar, when it arrives, and what the cold would buy. */
export function RunFermentation({ run, may, write }: Props) {
  const format = useFormat();
  const { data: view } = useQuery({
    queryKey: ["batch run", run.id, "fermentation"],
    enabled: run.state !== "finished" && run.state !== "scrapped",
    networkMode: "always",
    retry: false,
    queryFn: () =>
      keptWhenLost(`fermentation ${run.id}`, () =>
        answer(
          api.GET("/api/v1/batches/{batch_id}/fermentation", {
            params: { path: { batch_id: run.id } },
          }),
        ),
      ),
  });
  if (run.state === "planned") {
    return view?.feed ? <StarterFeed run={run} feed={view.feed} may={may} write={write} /> : null;
  }
  if (!view?.fermentation || run.state === "finished" || run.state === "scrapped") return null;
  const { fermentation, began_at, now_h, of, readings } = view;
  const { wanted, into_the_cold: cold, rate } = fermentation;
  const at = (t_h: number) => new Date(Date.parse(began_at) + t_h * HOUR_MS).toISOString();
  const moment = (t_h: number | null | undefined) => (t_h == null ? "later" : format.time(at(t_h)));
  const around = [...run.record.placed].reverse().find((one) => one.of === AROUND);
  const isCold = typeof around?.value === "number" && around.value <= cold.cold_c;
  const move = (celsius: number, label: string) =>
    write(label, { kind: "reading", quantity: "room_c", value: celsius, of: AROUND });
  return (
    <section className="mt-6" aria-label="Fermentation">
      <h2 className="text-xl">{of === "jar" ? "Sample jar" : "Rise of the dough"}</h2>
      <p className="text-lg">
        {wanted.at_h == null ? (
          <>It does not reach +{format.percent(wanted.rise_pct, 0)}.</>
        ) : (
          <>
            +{format.percent(wanted.rise_pct, 0)} at <b className="figure">{moment(wanted.at_h)}</b>
            , likely {moment(wanted.early_h)} to {moment(wanted.late_h)}
          </>
        )}
        {readings.length > 0
          ? `; it goes at ${format.number(rate.rate, 2)} of the model's speed by ${format.count(readings.length, "reading")}.`
          : "; nothing was read of it yet."}
      </p>
      <JarFigure view={view} />
      <h3 className="mt-2 text-lg font-semibold">
        {isCold ? "In the cold" : "Plans change: into the cold now"}
      </h3>
      <p className="text-lg">
        At {format.temperature(cold.cold_c, 0)} it may lie{" "}
        {cold.until_h == null ? (
          "four days and longer"
        ) : (
          <>
            until <b className="figure">{format.moment(at(cold.until_h))}</b>
          </>
        )}{" "}
        before it is at its mark even there.
      </p>
      <table className="w-full text-lg">
        <thead>
          <tr>
            <th scope="col">taken out after</th>
            <th scope="col">at</th>
            <th scope="col">ready at</th>
          </tr>
        </thead>
        <tbody>
          {cold.taken_out.map((one) => (
            <tr key={one.after_h} className="border-t border-hair">
              <td>{format.minutes(one.after_h * 60)}</td>
              <td>{format.moment(at(now_h + one.after_h))}</td>
              <td className="figure">
                {one.ready_h == null ? "not within a day" : format.moment(at(one.ready_h))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {may && (
        <button
          type="button"
          className="act mt-2 min-h-16 w-full text-xl"
          onClick={() =>
            isCold
              ? move(run.stages.find((one) => one.temperature_c)?.temperature_c ?? 22, "taken out")
              : move(cold.cold_c, "put in the cold")
          }
        >
          {isCold ? "Taken out of the cold" : "Put in the cold"}
        </button>
      )}
    </section>
  );
}

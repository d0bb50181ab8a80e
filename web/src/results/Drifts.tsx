import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { record } from "../api/outbox";
import { Refusal } from "../form/Refusal";
import { useMay } from "../session/session";
import { useFormat, type Format } from "../units/format";
import { shown } from "./featureValue";

type Drift = Schemas["DriftingFigure"];

/** What drifts and was seen by nobody yet. */
const DRIFTS = {
  queryKey: ["batches", "drifts"],
  queryFn: () => answer(api.GET("/api/v1/drifts")),
  // It is found some moments after a batch is finished.
  refetchInterval: 20_000,
};

/** What drifts from batch to batch before it is a fault, each until somebody has seen it. */
export function Drifts() {
  const queries = useQueryClient();
  const may = useMay("record");
  const drifts = useQuery(DRIFTS).data ?? [];
  const see = useMutation({
    networkMode: "always",
    mutationFn: ({ id, label }: Drift) =>
      record<Drift[]>({
        path: `/api/v1/drifts/${id}/seen/${crypto.randomUUID()}`,
        label: `${label} was seen`,
        body: {},
      }),
    onSuccess: (left) => queries.setQueryData(DRIFTS.queryKey, left),
  });
  if (drifts.length === 0) return null;
  const places = new Map<string, Drift[]>();
  for (const one of drifts) {
    const place = `${one.product} on ${one.line}`;
    places.set(place, [...(places.get(place) ?? []), one]);
  }
  return (
    <section aria-labelledby="drifts" className="mt-4 max-w-5xl border-l-4 border-crust pl-4">
      <h2 id="drifts">Drifting, not a fault yet</h2>
      {[...places].map(([place, own]) => (
        <div key={place} className="mt-2">
          <h3 className="font-semibold">{place}</h3>
          <ul>
            {own.map((one) => (
              <DriftRow
                key={one.id}
                drift={one}
                onSeen={may && !see.isPending ? () => see.mutate(one) : undefined}
              />
            ))}
          </ul>
        </div>
      ))}
      <Refusal error={see.error} />
      <p className="mt-2 text-sm text-iron">
        A figure beyond half-way from usual to where it is a fault, again and again on one side.
        What was seen is told no more while it lasts. House judgement.
      </p>
    </section>
  );
}

function DriftRow({ drift, onSeen }: { drift: Drift; onSeen: (() => void) | undefined }) {
  const format = useFormat();
  const [newest] = drift.batches;
  return (
    <li className="grid gap-x-4 border-t border-hair py-1 sm:grid-cols-[minmax(0,1fr)_9rem_3rem] sm:items-baseline">
      <span>{driftText(drift, format)}</span>
      {newest && (
        <Link className="link text-sm" to={`/results/faults?batch=${newest}`}>
          the newest of them
        </Link>
      )}
      {onSeen && (
        <button
          type="button"
          className="link screen-only text-left text-sm sm:text-right"
          onClick={onSeen}
        >
          Seen
        </button>
      )}
    </li>
  );
}

/** A drift in a sentence. */
export const driftText = (drift: Drift, format: Format) =>
  `${drift.label} ${shown(format, drift.mean, drift.unit)} in the mean, usual ${shown(
    format,
    drift.usual ?? 0,
    drift.unit,
  )}: ${drift.side} in ${drift.beyond} of ${drift.of} batches since ${format.moment(drift.began_at)}`;

/** That something drifts, quietly, where batches are listed. */
export function DriftsNotice() {
  const format = useFormat();
  const drifts = useQuery(DRIFTS).data ?? [];
  if (drifts.length === 0) return null;
  return (
    <p className="screen-only mt-2 text-sm">
      {format.count(drifts.length, "figure")} {drifts.length === 1 ? "drifts" : "drift"} before it
      is a fault:{" "}
      <Link className="link" to="/results/faults">
        what drifts
      </Link>
    </p>
  );
}

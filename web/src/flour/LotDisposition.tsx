import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { type Schemas } from "../api/client";
import { record } from "../api/outbox";
import { FieldText } from "../form/FieldText";
import { Author } from "../form/Author";
import { given } from "../units/number";
import { useFormat } from "../units/format";
import { usePreferences } from "../units/preferences";
import { DISPOSITION } from "../shell/disposition";
import { Faults } from "../form/Faults";

/** What becomes of a lot: a person decides, and says where it lies and how much is left. */
export function LotDisposition({ lot }: { lot: Schemas["LotView"] }) {
  const format = useFormat();
  const queries = useQueryClient();
  const { preferences } = usePreferences();
  const stock = lot.status.stock;
  const [reason, setReason] = useState("");
  const [place, setPlace] = useState<string>();
  const [left, setLeft] = useState<string>();
  const refresh = () =>
    Promise.all([
      queries.invalidateQueries({ queryKey: ["lot", lot.id] }),
      queries.invalidateQueries({ queryKey: ["lots"] }),
      queries.invalidateQueries({ queryKey: ["lots of"] }),
    ]);
  const decide = useMutation({
    networkMode: "always",
    mutationFn: (decision: string) =>
      record({
        path: `/api/v1/lots/${lot.id}/dispositions/${crypto.randomUUID()}`,
        subject: `decision on ${lot.id}`,
        label: `decision on ${lot.code}`,
        body: { decision, signed: { reason } },
      }),
    onSuccess: async () => {
      setReason("");
      await refresh();
    },
  });
  const put = useMutation({
    networkMode: "always",
    mutationFn: () =>
      record({
        path: `/api/v1/lots/${lot.id}/stock/${crypto.randomUUID()}`,
        subject: `stock of ${lot.id}`,
        label: `where ${lot.code} lies`,
        body: {
          place: place ?? stock?.place ?? "",
          tonnes_left:
            left === undefined ? (stock?.tonnes_left ?? null) : given(left, preferences.mark),
          signed: { reason: "" },
        },
      }),
    onSuccess: async () => {
      setPlace(undefined);
      setLeft(undefined);
      await refresh();
    },
  });
  return (
    <div className="mt-6 grid gap-x-12 gap-y-6 lg:grid-cols-2">
      <section aria-labelledby="decide">
        <h2 id="decide">Release status</h2>
        <Faults error={decide.error}>
          <div className="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
            <FieldText
              label="Reason"
              placeholder="needed for all but a plain release"
              className="min-w-56 flex-1"
              value={reason}
              field="signed.reason"
              onChange={setReason}
            />
            <Author label="Released or held by" />
          </div>
          <div className="mt-3 flex flex-wrap gap-3">
            {Object.entries(DISPOSITION).map(([key, { does }]) => (
              <button
                key={key}
                type="button"
                className="act"
                disabled={decide.isPending}
                onClick={() => decide.mutate(key)}
              >
                {does}
              </button>
            ))}
          </div>
        </Faults>
        {lot.decisions.length > 0 && (
          <ul className="mt-3 text-sm">
            {lot.decisions.map((one) => (
              <li key={one.made_at} className="border-t border-hair py-1">
                <b>{DISPOSITION[one.decision]?.word ?? one.decision}</b> by {one.made_by},{" "}
                {format.moment(one.made_at)}
                {one.reason && `: ${one.reason}`}
              </li>
            ))}
          </ul>
        )}
      </section>
      <section aria-labelledby="lies">
        <h2 id="lies">Location</h2>
        <Faults error={put.error}>
          <div className="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
            <FieldText
              label="Silo or bay"
              className="w-40"
              value={place ?? stock?.place ?? ""}
              field="place"
              onChange={setPlace}
            />
            <FieldText
              label="Tonnes left"
              className="w-28"
              value={left ?? (stock ? format.plain(Number(stock.tonnes_left.toFixed(2))) : "")}
              field="tonnes_left"
              onChange={setLeft}
            />
            <button
              type="button"
              className="act"
              disabled={put.isPending || (place === undefined && left === undefined)}
              onClick={() => put.mutate()}
            >
              Keep
            </button>
          </div>
        </Faults>
        {stock && (
          <p className="mt-2 text-sm text-iron">
            Seen by {stock.made_by}, {format.moment(stock.made_at)}
          </p>
        )}
        {lot.parts.length > 0 && (
          <>
            <h2 className="mt-4">Blended of</h2>
            <ul>
              {lot.parts.map((part) => (
                <li key={part.lot_id}>
                  <a className="link" href={`/flour?lot=${part.lot_id}`}>
                    {part.code}
                  </a>{" "}
                  {part.flour}, {format.percent(part.share_pct)}
                </li>
              ))}
            </ul>
          </>
        )}
      </section>
    </div>
  );
}

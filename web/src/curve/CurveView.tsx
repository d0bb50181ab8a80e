import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { record } from "../api/outbox";
import { BubbleSheet, type DrawnBubble } from "../figures/BubbleSheet";
import { CurveSheet, type Drawn } from "../figures/CurveSheet";
import { Author } from "../form/Author";
import { Refusal } from "../form/Refusal";
import { useFormat } from "../units/format";

/** One curve as a sheet, its readings, the moves of its marks, and what the certificate says beside. */
export function CurveView({ id, underId }: { id: string; underId: string | undefined }) {
  const format = useFormat();
  const queries = useQueryClient();
  const curve = useCurve(id);
  const under = useCurve(underId);
  const move = useMutation({
    networkMode: "always",
    mutationFn: ({ mark, minute }: { mark: string; minute: number | null }) =>
      record<Schemas["ReadCurve"]>({
        path: `/api/v1/curves/${id}/marks/${crypto.randomUUID()}`,
        label: `the mark ${mark}`,
        body: { mark, minute, signed: { reason: "" } },
      }),
    onSuccess: (read) => queries.setQueryData(["curve", id], read),
  });
  if (!curve) return <p className="py-6 text-iron">Reading the curve …</p>;
  const { farinograph, alveograph, checks, marks, moves } = curve;
  const notes = farinograph?.notes ?? alveograph?.notes ?? [];
  return (
    <div className="mt-3 overflow-x-auto">
      {farinograph && (
        <CurveSheet
          drawn={curve.input as unknown as Drawn}
          under={under?.input as unknown as Drawn | undefined}
          read={farinograph}
          marks={marks}
          onMove={(mark, minute) => move.mutate({ mark, minute })}
          label={`Farinogram of ${curve.code}`}
        />
      )}
      {alveograph && (
        <BubbleSheet
          bubbles={(curve.input as unknown as { curves: DrawnBubble[] }).curves}
          under={(under?.input as unknown as { curves?: DrawnBubble[] } | undefined)?.curves}
          read={alveograph}
          label={`Alveogram of ${curve.code}`}
        />
      )}
      <Refusal error={move.error} />
      {notes.map((note) => (
        <p key={note} className="mt-1 text-crust">
          {note}.
        </p>
      ))}
      <div className="mt-3 grid gap-x-12 gap-y-4 lg:grid-cols-2">
        <section aria-labelledby="from-curve">
          <h2 id="from-curve">Read from the curve, beside the certificate</h2>
          <table className="mt-1 w-full">
            <thead>
              <tr className="border-b border-ink">
                <th scope="col">property</th>
                <th scope="col" className="text-right">
                  curve
                </th>
                <th scope="col" className="text-right">
                  certificate
                </th>
                <th scope="col" className="pl-4">
                  <span className="sr-only">agrees</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {checks.map((one) => (
                <tr key={one.property} className="border-b border-hair">
                  <th scope="row" className="py-1 text-base font-normal text-ink">
                    {one.label} <span className="text-xs text-iron">{one.unit}</span>
                  </th>
                  <td className="figure text-right text-lg">
                    {format.number(one.from_curve, one.from_curve < 5 ? 2 : 1)}
                  </td>
                  <td className="text-right">
                    {one.stated == null ? "–" : format.plain(Number(one.stated.toPrecision(4)))}
                  </td>
                  <td
                    className={`pl-4 text-sm ${one.agrees ? "text-iron" : "font-semibold text-stop"}`}
                  >
                    {one.stated == null
                      ? "not stated"
                      : one.agrees
                        ? "agrees"
                        : `✕ disagrees by more than ${format.plain(Number(one.within.toPrecision(2)))}`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
        <section aria-labelledby="more">
          <h2 id="more">{farinograph ? "More readings" : "Each curve"}</h2>
          {farinograph && (
            <dl className="mt-1 grid grid-cols-2 gap-x-6">
              {(
                [
                  ["peak", farinograph.max_consistency_fu, "FU"],
                  ["arrival", farinograph.arrival_min, "min"],
                  ["departure", farinograph.departure_min, "min"],
                  ["mixing tolerance index", farinograph.mti_fu, "FU"],
                  ["quality number", farinograph.quality_number_mm, "mm"],
                  ["absorption as is", farinograph.absorption_as_is_pct, "%"],
                  ["noise taken out", farinograph.noise_fu, "FU"],
                ] as const
              ).map(([name, value, unit]) => (
                <div key={name} className="flex justify-between border-b border-hair py-1">
                  <dt>{name}</dt>
                  <dd>{value == null ? "–" : `${format.number(value)} ${unit}`}</dd>
                </div>
              ))}
            </dl>
          )}
          {alveograph && (
            <div className="overflow-x-auto">
              <table className="mt-1 w-full">
                <thead>
                  <tr className="border-b border-ink">
                    {["curve", "P", "L", "G", "W", "P/L", "Ie"].map((name, at) => (
                      <th key={name} scope="col" className={at > 0 ? "text-right" : ""}>
                        {name}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {alveograph.curves.map((one) => (
                    <tr
                      key={one.curve}
                      className={`border-b border-hair ${one.left_out ? "text-stop line-through" : ""}`}
                    >
                      <td className="py-0.5">{one.curve}</td>
                      {[one.p_mmh2o, one.l_mm, one.g, one.w, one.p_over_l, one.ie_pct].map(
                        (value, at) => (
                          <td key={at} className="text-right">
                            {value == null ? "–" : format.number(value, at === 4 ? 2 : 1)}
                          </td>
                        ),
                      )}
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          )}
          {farinograph && (
            <div className="mt-3 flex flex-wrap items-end gap-4 text-sm">
              <p className="max-w-xs text-iron">
                Drag a mark, or choose it and use the arrow keys: what rests on it follows, and the
                move is kept.
              </p>
              <Author label="Marks moved by" />
              {marks
                .filter((mark) => mark.moved)
                .map(({ mark }) => (
                  <button
                    key={mark}
                    type="button"
                    className="link"
                    onClick={() => move.mutate({ mark, minute: null })}
                  >
                    Put {mark} back
                  </button>
                ))}
            </div>
          )}
          {moves.length > 0 && (
            <ul className="mt-2 text-sm">
              {moves.map((one) => (
                <li key={one.made_at}>
                  {one.mark}{" "}
                  {one.minute == null ? "put back" : `to ${format.number(one.minute, 2)} min`},{" "}
                  {one.made_by}, {format.moment(one.made_at)}
                </li>
              ))}
            </ul>
          )}
        </section>
      </div>
    </div>
  );
}

function useCurve(id: string | undefined) {
  return useQuery({
    queryKey: ["curve", id],
    enabled: id !== undefined,
    queryFn: () =>
      answer(api.GET("/api/v1/curves/{curve_id}", { params: { path: { curve_id: id ?? "" } } })),
  }).data;
}

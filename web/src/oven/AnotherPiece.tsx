import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../api/client";
import { NumberField } from "../form/NumberField";
import { Refusal } from "../form/Refusal";
import { useFormat } from "../units/format";

/** How long a piece of another mass would bake. */
export function AnotherPiece({ bake }: { bake: string }) {
  const format = useFormat();
  const [piece, setPiece] = useState<number | null>(null);
  const { data, error } = useQuery({
    queryKey: ["batches", "scaled bake", bake, piece],
    enabled: piece !== null,
    queryFn: () =>
      answer(
        api.GET("/api/v1/bake-traces/{trace_id}/scaled", {
          params: { path: { trace_id: bake }, query: { piece_kg: piece ?? 0 } },
        }),
      ),
  });
  return (
    <section aria-labelledby="another-piece" className="screen-only">
      <h2 id="another-piece">Another piece</h2>
      <NumberField
        label="Dough in the piece"
        className="mt-1 w-40"
        kind="mass"
        value={piece}
        onSet={setPiece}
      />
      <Refusal error={error} />
      {data && (
        <p className="mt-1" role="status">
          Bakes about <b className="figure">{format.minutes(data.minutes.typical)}</b>, likely{" "}
          {format.number(data.minutes.low)} to {format.minutes(data.minutes.high)}, its shape and
          the oven the same; from {format.minutes(data.from_min)} of {format.mass(data.from_kg)}{" "}
          (house judgement). Its own core decides.
        </p>
      )}
    </section>
  );
}

import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { Select } from "../form/Select";
import { useFormat } from "../units/format";

interface Props {
  catalogue: Schemas["FaultCatalogue"] | undefined;
  batch: string;
  fault: string;
  baked: string;
  onSet: (change: { batch?: string; fault?: string; baked?: string }) => void;
}

/** Which batch, what is wrong with it, and how it was baked. */
export function FaultChoice({ catalogue, batch, fault, baked, onSet }: Props) {
  const format = useFormat();
  const last = useQuery({
    queryKey: ["batches", "last ended"],
    queryFn: () =>
      answer(api.GET("/api/v1/batches", { params: { query: { state: "finished,held,running" } } })),
  }).data?.batches;
  // One that the address names may be older than those listed.
  const { data: own } = useQuery({
    queryKey: ["batch", batch],
    enabled: batch !== "" && Boolean(last) && !last?.some((one) => one.id === batch),
    queryFn: () =>
      answer(api.GET("/api/v1/batches/{batch_id}", { params: { path: { batch_id: batch } } })),
  });
  const named = (last ?? []).map(
    (one) => [one.id, `${one.product}, ${format.moment(one.planned_for)}`] as const,
  );
  const older = own
    ? [[own.id, `${own.issued.product}, ${format.moment(own.planned_for)}`] as const]
    : [];
  return (
    <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
      <Select
        label="Batch"
        value={batch}
        options={[["", "which batch"], ...older, ...named]}
        onSet={(chosen) => onSet({ batch: chosen })}
      />
      <Select
        label="What is wrong"
        value={fault}
        options={[
          ["", "which fault"],
          ...(catalogue?.faults ?? []).map(
            (one) => [one.key, `${one.group}: ${one.name}`] as const,
          ),
        ]}
        onSet={(chosen) => onSet({ fault: chosen })}
      />
      <Select
        label="Baked"
        value={baked}
        options={[
          ["", "not said"],
          ["tin", "in a tin"],
          ["hearth", "on the hearth"],
        ]}
        onSet={(chosen) => onSet({ baked: chosen })}
      />
    </div>
  );
}

import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { DayField } from "../form/DayField";
import { Select } from "../form/Select";
import { dayOf } from "../units/clock";
import { useFormat } from "../units/format";
import { ProductChoice } from "./ProductChoice";

interface Props {
  catalogue: Schemas["FaultCatalogue"] | undefined;
  asked: FaultAsked;
  onSet: (change: Partial<FaultAsked>) => void;
}

/** What is picked, each empty where it is not. */
export interface FaultAsked {
  /** What a complaint says: a product, and the day it was made. */
  of: string;
  made: string;
  batch: string;
  fault: string;
  baked: string;
}

/** Which batch, by itself or by a complaint's product and day; what is wrong, and how it was baked. */
export function FaultChoice({ catalogue, asked, onSet }: Props) {
  const { of, made, batch, fault, baked } = asked;
  const format = useFormat();
  const query = { state: "finished,held,running", ...(of && { product: of }), ...dayOf(made) };
  const last = useQuery({
    queryKey: ["batches", query],
    queryFn: () => answer(api.GET("/api/v1/batches", { params: { query } })),
  }).data?.batches;
  // One that the address names may be older than those listed.
  const { data: own } = useQuery({
    queryKey: ["batch", batch],
    enabled: batch !== "" && Boolean(last) && !last?.some((one) => one.id === batch),
    queryFn: () =>
      answer(api.GET("/api/v1/batches/{batch_id}", { params: { path: { batch_id: batch } } })),
  });
  const named = (last ?? []).map((one) => {
    const score = one.score == null ? "" : `, score ${format.number(one.score, 0)}`;
    return [one.id, `${one.product}, ${format.moment(one.planned_for)}${score}`] as const;
  });
  const older = own
    ? [[own.id, `${own.issued.product}, ${format.moment(own.planned_for)}`] as const]
    : [];
  return (
    <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
      <ProductChoice product={of} onSet={(of) => onSet({ of, batch: "" })} />
      <DayField label="Made on" value={made} onSet={(made) => onSet({ made, batch: "" })} />
      <Select
        label="Batch"
        value={batch}
        options={[
          ["", last?.length === 0 ? "none was made then" : "which batch"],
          ...older,
          ...named,
        ]}
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

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { record } from "../api/outbox";
import { Form } from "../form/Form";
import { Select } from "../form/Select";
import { Signed } from "../form/Signed";
import { PRODUCTS } from "../scenario/found";
import { useFormat } from "../units/format";
import { doughLetter } from "./trialWords";

interface Props {
  trial: Schemas["TrialView"];
  verdict: Schemas["TrialVerdict"];
}

/** The variant that is kept: the formula's and the method's next revision, with the trial as reason. */
export function KeepVariant({ trial, verdict }: Props) {
  const format = useFormat();
  const queries = useQueryClient();
  const { variants } = trial.issued;
  const totalOf = (at: number) => verdict.variants[at]?.total.total;
  const best = variants.reduce(
    (best, _, at) => ((totalOf(at) ?? 0) > (totalOf(best) ?? 0) ? at : best),
    0,
  );
  const [variant, setVariant] = useState(best);
  const [typed, setTyped] = useState<string>();
  const scored = [variant, ...(variant ? [0] : [])].flatMap((at) => {
    const total = totalOf(at);
    return total == null ? [] : [`${doughLetter(at)} ${format.number(total, 0)}`];
  });
  const said = `trial of ${format.moment(trial.saved_at)}, ${variants[variant]?.name}: ${scored.join(", ")} of 100`;
  const reason = typed ?? said;
  const products = useQuery(PRODUCTS).data ?? [];
  const own = products.find((one) => one.slug === trial.slug);
  const alike = products.filter(
    (one) =>
      one !== own && (one.formula_id === own?.formula_id || one.method_id === own?.method_id),
  );
  const keep = useMutation({
    networkMode: "always",
    mutationFn: () =>
      record<unknown>({
        path: `/api/v1/trials/${trial.id}/kept/${crypto.randomUUID()}`,
        label: `${doughLetter(variant)} of the trial of ${trial.product}`,
        body: { variant, signed: { reason } },
      }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["trial"] });
      await queries.invalidateQueries({ queryKey: ["product", trial.slug] });
    },
  });
  return (
    <Form
      className="screen-only mt-4 max-w-4xl"
      label="Keep a dough"
      error={keep.error}
      onSubmit={() => keep.mutate()}
    >
      <Select
        label="Dough to keep"
        value={String(variant)}
        options={variants.map((one, at) => [String(at), `${doughLetter(at)}, ${one.name}`])}
        onSet={(at) => setVariant(Number(at))}
      />
      <Signed label="Why it is kept" reason={reason} onReason={setTyped} />
      <p className="mt-3 flex flex-wrap items-center gap-4">
        <button type="submit" className="act act-main" disabled={keep.isPending}>
          Keep {doughLetter(variant)}
        </button>
        <span className="text-sm text-iron">
          {variant
            ? "Its changes become the next revision of formula and method, with this reason; the one before stays on record."
            : "The dough stays as it is; that it was tried is kept."}
        </span>
      </p>
      {variant > 0 && alike.length > 0 && (
        <p className="mt-1 text-sm text-crust">
          Made by the same formula or method, and changed with it:{" "}
          {alike.map((one) => one.name).join(", ")}.
        </p>
      )}
    </Form>
  );
}

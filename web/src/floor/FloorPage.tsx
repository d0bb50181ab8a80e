import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { type Schemas } from "../api/client";
import { useGoOn } from "../shell/useGoOn";
import { record } from "../api/outbox";
import { useScenario } from "../scenario/ScenarioProvider";
import { EmptyState } from "../shell/EmptyState";
import { DateTimeField } from "../form/DateTimeField";
import { useScenarioContext } from "../shell/useScenarioContext";
import { addDays, set } from "date-fns";
import { fieldOf, momentOf, onTheWall } from "../units/clock";
import { useFormat } from "../units/format";
import { FloorTabs } from "./FloorTabs";
import { MixingSheet } from "./MixingSheet";
import { releaseOf } from "./release";
import { Author } from "../form/Author";
import { Form } from "../form/Form";

/** Tonight's mixing sheet, to print or to plan as a batch. */
export function FloorPage() {
  const { chain, process, product, lot, others, input } = useScenarioContext();
  const { draft, method } = useScenario();
  const edited = draft ? "formula" : method ? "method" : undefined;
  const format = useFormat();
  const [planned, setPlanned] = useState(tonight);
  const lots = [...(lot ? [lot] : []), ...others.flatMap((other) => other.lot ?? [])];
  if (!chain?.sheet || !product || !lot || !input) {
    return (
      <>
        <FloorTabs />
        <EmptyState link="floor" />
      </>
    );
  }
  return (
    <>
      <FloorTabs />
      <div className="grid gap-8 lg:grid-cols-[minmax(0,1fr)_17rem] print:block">
        <MixingSheet
          chain={chain}
          head={{
            product: product.name,
            line: product.line.name,
            process,
            lot: lot.code,
            flour: [
              lot.flour.name,
              ...others.map((other) => `${other.flour.name} ${other.lot?.code ?? ""}`),
            ].join(", with "),
            when: format.moment(momentOf(planned).toISOString()),
            asked: lot.certificate.specification != null,
            release: lots.flatMap((one) => releaseOf(format, one)),
            revisions: `${product.specification ? `Specification ${product.specification.number}` : "No specification"}, lot ${lot.revision.number}, formula ${product.formula.revision.number}${draft ? " edited" : ""}, method ${product.method.revision.number}${method ? " edited" : ""}, line ${product.line.revision.number}. Not yet planned.`,
          }}
        />
        <PlanBatch
          lots={lots}
          product={product}
          input={input}
          edited={edited}
          planned={planned}
          setPlanned={setPlanned}
        />
      </div>
    </>
  );
}

interface Props {
  /** The lots it is made of, some of which may not be planned. */
  lots: Schemas["LotView"][];
  product: Schemas["ProductView"];
  input: Schemas["ScenarioInput"];
  /** What is edited and not recorded. */
  edited: "formula" | "method" | undefined;
  planned: string;
  setPlanned: (planned: string) => void;
}

function PlanBatch({ lots, product, input, edited, planned, setPlanned }: Props) {
  const goOn = useGoOn();
  const { search } = useScenario();
  const queries = useQueryClient();
  const plan = useMutation({
    networkMode: "always",
    mutationFn: (id: string) => {
      const body: Schemas["BatchInput"] = {
        slug: product.slug,
        scenario: input,
        planned_for: momentOf(planned).toISOString(),
      };
      return record<Schemas["BatchView"]>({
        path: `/api/v1/batches/${id}`,
        label: `${product.name}, planned batch`,
        body,
      });
    },
    onSuccess: async (batch) => {
      await queries.invalidateQueries({ queryKey: ["batches"] });
      goOn({ pathname: `/batches/${batch.id}`, search });
    },
  });
  const barred = lots.filter((lot) => lot.status.barred);
  return (
    <Form
      className="screen-only self-start"
      label="Plan a batch"
      error={plan.error}
      onSubmit={() => plan.mutate(crypto.randomUUID())}
    >
      <button type="button" className="act w-full" onClick={() => window.print()}>
        Print sheet
      </button>
      <h2 className="mt-6">Plan as a batch</h2>
      <p className="text-sm text-iron">
        Keeps this sheet as it stands, at an address of its own, tied to the lot and to the
        revisions it came from.
      </p>
      <div className="mt-3">
        <DateTimeField label="Mixing starts" value={planned} onSet={setPlanned} />
      </div>
      <div className="mt-3">
        <Author label="Planned by" />
      </div>
      <button
        type="submit"
        className="act act-main mt-4 w-full"
        disabled={plan.isPending || edited !== undefined || barred.length > 0}
      >
        {plan.isPending ? "Saving …" : "Plan this batch"}
      </button>
      {barred.map((lot) => (
        <p key={lot.id} className="mt-2 text-sm text-stop">
          {lot.code} cannot be planned: {lot.status.barred}.{" "}
          <Link
            className="link"
            to={lot === lots[0] ? { pathname: "/flour", search } : `/flour?lot=${lot.id}`}
          >
            Decide its release
          </Link>{" "}
          or take another lot.
        </p>
      ))}
      {edited && (
        <p className="mt-2 text-sm text-crust">
          Save the edited {edited} first, under {edited === "formula" ? "Dough" : "Stages"}.
        </p>
      )}
    </Form>
  );
}

/** Next 22:00, as the field wants it. */
function tonight(): string {
  const now = onTheWall(Date.now());
  const day = now.getHours() >= 22 ? addDays(now, 1) : now;
  return fieldOf(set(day, { hours: 22, minutes: 0 }));
}

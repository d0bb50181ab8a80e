import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { Refusal } from "../form/Refusal";
import { asDraft, edited } from "../scenario/documents";
import { useScenario } from "../scenario/ScenarioProvider";
import { writeScenario } from "../scenario/scenario";

interface Props {
  batch: string;
  cause: Pick<Schemas["CauseFound"], "cause" | "in_figures">;
}

/** Opens a cause's action as an edit of the product's next dough; undone like any other. */
export function OpenWhatIf({ batch, cause: { cause, in_figures } }: Props) {
  const navigate = useNavigate();
  const { newest, set } = useScenario();
  const open = useMutation({
    networkMode: "always",
    mutationFn: () =>
      answer(
        api.GET("/api/v1/batches/{batch_id}/what-if/{cause}", {
          params: { path: { batch_id: batch, cause } },
        }),
      ),
    onSuccess: ({ slug, lot_id, other_lots, hydration_pct, target_c, formula, method }) => {
      set(
        {
          product: slug,
          lot: lot_id,
          others: other_lots,
          water: hydration_pct ?? null,
          target: target_c ?? null,
        },
        {
          ...(formula && { draft: edited(formula) }),
          ...(method && { method: asDraft(method) }),
        },
      );
      const pathname = method ? "/method/stages" : formula ? "/dough" : "/water";
      void navigate({ pathname, search: writeScenario(newest().scenario).toString() });
    },
  });
  if (!in_figures) return null;
  return (
    <>
      <button
        type="button"
        className="link screen-only text-sm"
        disabled={open.isPending}
        onClick={() => open.mutate()}
      >
        Open as a what-if
      </button>
      <Refusal error={open.error} />
    </>
  );
}

import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";
import { lastOfSameDough } from "../scenario/sameDough";
import type { MethodDraft } from "../scenario/edited";
import { useScenario } from "../scenario/ScenarioProvider";
import { useScenarioContext } from "../shell/useScenarioContext";
import { asDraft } from "../scenario/documents";
import type { StageInput } from "./method";

/** The method in use, edited or as recorded, and the way to edit it. */
export function useMethod() {
  const { method: draft, editMethod } = useScenario();
  const { product } = useScenarioContext();
  const whole = (draft: MethodDraft | undefined) => draft ?? (product && asDraft(product.method));
  return {
    method: whole(draft),
    edited: draft !== undefined,
    whole,
    /** Changes the newest method. */
    set: (change: (now: MethodDraft) => Partial<MethodDraft>) =>
      editMethod((draft) => {
        const now = whole(draft);
        return now && { ...now, ...change(now) };
      }),
    /** Changes the newest list of its stages. */
    setStages: (change: (stages: StageInput[]) => StageInput[]) =>
      editMethod((draft) => {
        const now = whole(draft);
        return now && { ...now, stages: change(now.stages ?? []) };
      }),
    putBack: () => editMethod(undefined),
  };
}

/** What the method says of the selected product. */
export function useGuide() {
  const { input } = useScenarioContext();
  return useQuery({
    queryKey: ["method guide", input],
    enabled: input !== null,
    placeholderData: lastOfSameDough(input),
    queryFn: ({ signal }) => {
      if (!input) throw new Error("asked without a product");
      return answer(api.POST("/api/v1/chain/method", { body: input, signal }));
    },
  }).data;
}

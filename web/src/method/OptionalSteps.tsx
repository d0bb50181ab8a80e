import { useMutation } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import type { MethodDraft } from "../scenario/edited";
import { useScenario } from "../scenario/ScenarioProvider";
import { settled } from "../scenario/settled";
import { Refusal } from "../form/Refusal";
import { useFormat } from "../units/format";
import { asDraft } from "../scenario/documents";
import { useMethod } from "./useMethod";

interface Props {
  optional: Schemas["Optional"][];
  method: MethodDraft;
}

/** Steps on which there are two schools: taken or left out, and what is the same without. */
export function OptionalSteps({ optional, method }: Props) {
  const format = useFormat();
  const { editMethod, newest } = useScenario();
  const { whole } = useMethod();
  const choose = useMutation({
    networkMode: "always",
    mutationFn: (body: { choice: Schemas["OptionalStep"]; taken: boolean }) =>
      settled(newest, (now) =>
        answer(
          api.POST("/api/v1/optional-step", {
            body: { method: whole(now.method) ?? method, ...body },
          }),
        ),
      ),
    onSuccess: (changed) => editMethod(asDraft(changed)),
  });
  return (
    <section aria-labelledby="schools">
      <h2 id="schools">Optional steps</h2>
      <ul className="mt-1">
        {optional.map((one) => (
          <li key={one.choice} className="border-t border-hair py-1.5">
            <label className="flex gap-2">
              <input
                type="checkbox"
                checked={one.taken}
                disabled={choose.isPending}
                onChange={(event) =>
                  choose.mutate({ choice: one.choice, taken: event.target.checked })
                }
              />
              <b>{one.label}</b>
            </label>
            <p className="text-sm text-iron">
              With: {format.text(one.does)}. Without: {format.text(one.without)}.
            </p>
          </li>
        ))}
      </ul>
      <Refusal error={choose.error} />
    </section>
  );
}

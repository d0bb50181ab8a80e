import { useMutation, useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { useScenario } from "../scenario/ScenarioProvider";
import { Refusal } from "../form/Refusal";
import { useFormat } from "../units/format";
import { asDraft } from "../scenario/documents";

/** Who changed the method, when and why; an old state can be taken up again. */
export function MethodRevisions({ method }: { method: Schemas["MethodView"] }) {
  const format = useFormat();
  const { editMethod, newest } = useScenario();
  const revisions =
    useQuery({
      queryKey: ["method revisions", method.id, method.revision.id],
      queryFn: () =>
        answer(
          api.GET("/api/v1/methods/{method_id}/revisions", {
            params: { path: { method_id: method.id } },
          }),
        ),
    }).data ?? [];
  const take = useMutation({
    networkMode: "always",
    onMutate: () => newest().method,
    mutationFn: (revision_id: string) =>
      answer(
        api.GET("/api/v1/method-revisions/{revision_id}", { params: { path: { revision_id } } }),
      ),
    // What was edited while it was asked for stays edited.
    onSuccess: (found, _, asked) => editMethod((now) => (now === asked ? asDraft(found) : now)),
  });
  return (
    <section aria-labelledby="method-revisions" className="screen-only">
      <h2 id="method-revisions">Revisions</h2>
      <ol className="mt-1 text-sm">
        {revisions.map((revision, at) => (
          <li key={revision.id} className="border-t border-hair py-1">
            <span className="flex justify-between gap-3">
              <b>Revision {revision.number}</b>
              {at > 0 && (
                <button type="button" className="link" onClick={() => take.mutate(revision.id)}>
                  Restore
                </button>
              )}
            </span>
            <span className="text-iron">
              {format.date(revision.made_at)}, {revision.made_by}: {revision.reason}
            </span>
          </li>
        ))}
      </ol>
      <Refusal error={take.error} />
    </section>
  );
}

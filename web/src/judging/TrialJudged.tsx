import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { Refusal } from "../form/Refusal";
import { useMay } from "../session/session";
import { CompareTable } from "../table/CompareTable";
import { useFormat } from "../units/format";
import { KeepVariant } from "./KeepVariant";
import { Photographs } from "./Photographs";
import { Samples } from "./Samples";
import { markText } from "./sheet";
import { doughLetter, useDifference } from "./trialWords";

/** The newest cut face of a dough. */
function CutFace({ found, variant }: { found: Schemas["TrialScores"]; variant: number }) {
  const bakes = found.doughs.filter((dough) => dough.variant === variant);
  const own = bakes
    .reverse()
    .flatMap(({ id }) => found.samples.filter((sample) => sample.bench_dough_id === id));
  const faces = own.flatMap(({ id }) =>
    found.photographs.filter((one) => one.sample_id === id && one.shows === "cut_face"),
  );
  const codeOf = ({ sample_id }: Schemas["SamplePhotograph"]) =>
    own.find(({ id }) => id === sample_id)?.code ?? "";
  return faces.length > 0 ? <Photographs photographs={faces.slice(0, 1)} of={codeOf} /> : "–";
}

/** The doughs of a trial judged side by side: which differences are real, and what is kept. */
export function TrialJudged({ trial }: { trial: Schemas["TrialView"] }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const format = useFormat();
  const may = useMay("record");
  const mayKeep = useMay("change");
  const [shown, setShown] = useState(false);
  const difference = useDifference();
  const { data: found, error } = useQuery({
    queryKey: ["trial", "scores", trial.id],
    queryFn: () =>
      answer(
        api.GET("/api/v1/trials/{trial_id}/scores", { params: { path: { trial_id: trial.id } } }),
      ),
  });
  if (error) return <Refusal error={error} />;
  if (!found) return null;
  const { verdict, lines, doughs, kept } = found;
  const { variants } = trial.issued;
  const judged = verdict.variants.some(Boolean);
  const besideOf = (at: number) => verdict.differences.find((one) => one.variant === at);
  const places = new Map(doughs.map((dough) => [dough.id, dough]));
  const doughOf = (sample: Schemas["Sample"]) => {
    const dough = places.get(sample.bench_dough_id ?? "");
    return dough ? `${doughLetter(dough.variant)}, bake ${dough.bake}` : "";
  };
  // In the order of their codes, which says nothing of the dough.
  const samples = [...found.samples].sort((one, other) => one.code.localeCompare(other.code));
  return (
    <section aria-label="Judged" className="mt-6 border-t-2 border-ink pt-2">
      <h2>Judged</h2>
      {kept.map((one) => (
        <p key={one.id} className="mt-1 font-semibold">
          {one.kept_by} kept {doughLetter(one.variant)}, {variants[one.variant]?.name},{" "}
          {format.moment(one.kept_at)}: {one.reason}
        </p>
      ))}
      {!judged && (
        <p className="mt-1 max-w-3xl text-iron">
          Nobody has judged it yet. Set loaves of every dough out under codes; each judge opens a
          code's sheet, alone, and the doughs stand side by side here.
        </p>
      )}
      {judged && (
        <>
          <CompareTable
            caption="The doughs as they were judged"
            heads={variants.map((variant, at) => ({
              key: variant.name,
              head: (
                <>
                  <b>{doughLetter(at)}</b> {variant.name}
                </>
              ),
            }))}
            groups={[
              {
                inOrder: true,
                rows: [
                  {
                    key: "total",
                    label: "total of 100, judging alone ±",
                    differs: true,
                    cells: verdict.variants.map((panel) =>
                      panel?.total.total == null
                        ? "–"
                        : `${format.number(panel.total.total)}\u00a0±\u00a0${format.number(panel.total_sd ?? 0)}`,
                    ),
                  },
                  {
                    key: "cut face",
                    label: "cut face, of its last bake",
                    differs: false,
                    cells: variants.map((_, at) => <CutFace key={at} found={found} variant={at} />),
                  },
                  {
                    key: "beside",
                    label: "beside the dough as it is",
                    prose: true,
                    differs: false,
                    cells: variants.map((_, at) => difference(besideOf(at))),
                  },
                ],
              },
              {
                title: "Marks; those that differ for sure, over the whole sheet, are marked",
                inOrder: true,
                rows: lines.map((line) => ({
                  key: line.of,
                  label: line.label.toLowerCase(),
                  differs: true,
                  cells: verdict.variants.map((panel, at) => {
                    const one = panel?.traits.find((mark) => mark.of === line.of);
                    const beside = besideOf(at)?.traits.find((mark) => mark.of === line.of);
                    const sure = beside && beside.says !== "not_shown";
                    // A node, so that only what is sure stands out.
                    return (
                      <span className={sure ? "font-semibold text-crust underline" : ""}>
                        {one ? markText(one.mark, one.sign, format) : "–"}
                      </span>
                    );
                  }),
                })),
              },
            ]}
          />
          <p className="mt-2 max-w-4xl text-sm text-iron">
            A total is tested at 95 %, the marks together by Holm's step-down. How far loaves of one
            dough scatter is house judgement; judges and earlier batches are this plant's own.
          </p>
        </>
      )}
      {judged && mayKeep && <KeepVariant trial={trial} verdict={verdict} />}
      <Samples
        at={`/api/v1/trials/${trial.id}/bakes`}
        samples={samples}
        scores={found.scores}
        photographs={found.photographs}
        may={may}
        onJudge={(code) => void navigate(`/judge/${code}`)}
        onSetOut={() => queries.invalidateQueries({ queryKey: ["trial"] })}
        doughOf={shown ? doughOf : undefined}
      />
      {samples.length > 0 && (
        <label className="screen-only mt-2 block">
          <input
            type="checkbox"
            checked={shown}
            onChange={(event) => setShown(event.target.checked)}
          />{" "}
          show which dough is under which code, for whoever sets them out
        </label>
      )}
    </section>
  );
}

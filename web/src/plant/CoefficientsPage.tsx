import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";
import { FAULTS } from "../scenario/found";
import { useScenario } from "../scenario/ScenarioProvider";
import { useFormat } from "../units/format";
import { CoefficientTable } from "./CoefficientTable";
import { PlantTabs } from "./PlantTabs";
import { SearchField, useSearched } from "./SearchField";
import { usePlantParameters } from "./usePlantParameters";
import { Refusal } from "../form/Refusal";
import { Select } from "../form/Select";

const SUBJECTS = {
  flour: "Flour",
  dough: "Dough: scaling, losses",
  water: "Water: correction factors, absorption model",
  heat: "Heat balance, friction",
  ferment: "Fermentation",
  method: "Method: stages, mixing, conditioning",
  schedule: "Schedule",
  learn: "Learned numbers",
  oven: "Oven",
  judging: "Judging",
  fault: "Fault finder",
} as const;

/** Every number the computation rests on: the house's, and the plant's own where it has one. */
export function CoefficientsPage() {
  const parameters = usePlantParameters();
  const format = useFormat();
  const { search, show } = useScenario();
  const [text] = useSearched();
  const subject = new URLSearchParams(search).get("subject") ?? "";
  const own = new URLSearchParams(search).get("own") === "yes";
  const fault = subject === "fault" ? (new URLSearchParams(search).get("fault") ?? "") : "";
  const faults = useQuery({ ...FAULTS, enabled: subject === "fault" }).data?.faults ?? [];
  const ofFault = useQuery({
    queryKey: ["parameters", "fault", fault],
    enabled: fault !== "",
    queryFn: () =>
      answer(api.GET("/api/v1/faults/{fault}/coefficients", { params: { path: { fault } } })),
  });
  const all = (fault ? ofFault.data : parameters?.coefficients) ?? [];
  const shown = all.filter((one) => (!subject || one.subject === subject) && (!own || one.own));
  const { revision } = parameters ?? {};
  return (
    <>
      <PlantTabs />
      <h1>Coefficients</h1>
      <p className="mt-1 max-w-prose text-sm text-iron">
        Every number a figure rests on, with its band and origin: S a published standard, P physics,
        H a house default, L this plant's own. A value changed here moves every figure from now on,
        and no batch planned before.
        {revision &&
          ` Revision ${revision.number}, ${format.date(revision.made_at)}, ${revision.made_by}: ${revision.reason}.`}
      </p>
      <div className="mt-3 flex flex-wrap items-end gap-4">
        <SearchField of="coefficients" placeholder="retention, salt, friction …" />
        <Select
          label="Subject"
          value={subject}
          options={[["", "all"], ...Object.entries(SUBJECTS)]}
          onSet={(value) => show({ subject: value || null, fault: null })}
        />
        {subject === "fault" && (
          <Select
            label="Fault"
            value={fault}
            options={[
              ["", "the finder itself"],
              ...faults.map((one) => [one.key, one.name] as const),
            ]}
            onSet={(value) => show({ fault: value || null })}
          />
        )}
        <label className="flex items-center gap-2 pb-1">
          <input
            type="checkbox"
            checked={own}
            onChange={(event) => show({ own: event.target.checked ? "yes" : null })}
          />
          Only plant values
        </label>
      </div>
      <Refusal error={ofFault.error} />
      <CoefficientTable caption="Coefficients" coefficients={shown} search={text} />
    </>
  );
}

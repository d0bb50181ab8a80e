import { useScenario } from "../scenario/ScenarioProvider";
import { useFormat } from "../units/format";
import { CoefficientTable } from "./CoefficientTable";
import { PlantTabs } from "./PlantTabs";
import { SearchField, useSearched } from "./SearchField";
import { usePlantParameters } from "./usePlantParameters";
import { Select } from "../form/Select";

const SUBJECTS = {
  flour: "Flour",
  dough: "Dough: scaling, losses",
  water: "Water: correction factors, absorption model",
  heat: "Heat balance, friction",
  ferment: "Fermentation",
  method: "Method: stages, mixing, conditioning",
  schedule: "Schedule",
} as const;

/** Every number the computation rests on: the house's, and the plant's own where it has one. */
export function CoefficientsPage() {
  const parameters = usePlantParameters();
  const format = useFormat();
  const { search, show } = useScenario();
  const [text] = useSearched();
  const subject = new URLSearchParams(search).get("subject") ?? "";
  const own = new URLSearchParams(search).get("own") === "yes";
  const all = parameters?.coefficients ?? [];
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
          onSet={(value) => show({ subject: value || null })}
        />
        <label className="flex items-center gap-2 pb-1">
          <input
            type="checkbox"
            checked={own}
            onChange={(event) => show({ own: event.target.checked ? "yes" : null })}
          />
          Only plant values
        </label>
      </div>
      <CoefficientTable caption="Coefficients" coefficients={shown} search={text} />
    </>
  );
}

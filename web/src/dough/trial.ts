import type { Schemas } from "../api/client";
import { numberOf } from "../scenario/scenario";
import { joined, parted, type InAddress } from "../scenario/useAddressed";

/** What is wanted, the changes chosen for it, and the dough of each in kg. */
export interface TrialQuery {
  goal: Schemas["QualityGoal"];
  interventions: Schemas["Intervention"][];
  kg: number;
}

export const TRIAL_KEY = "ironpeel.trial.";

export const TRIAL_IN_ADDRESS: InAddress<TrialQuery> = {
  read: (search) => {
    const goal = search.get("goal");
    if (!goal) return undefined;
    return {
      goal: goal as TrialQuery["goal"],
      interventions: parted(search.get("try")) as TrialQuery["interventions"],
      kg: numberOf(search.get("each")) ?? 1,
    };
  },
  write: ({ goal, interventions, kg }) => ({
    goal,
    try: joined(interventions) || null,
    each: kg === 1 ? null : String(kg),
  }),
};

/** An open crumb first; what was chosen for another dough is not kept. */
export const keptTrial = (kept?: Partial<TrialQuery>): TrialQuery => ({
  goal: "open_crumb",
  interventions: [],
  kg: 1,
  ...kept,
});

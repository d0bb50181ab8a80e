import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { useKept } from "../storage/useKept";

type Step = keyof Schemas["Beginning"];

/** What a plant needs for its first mixing sheet, in order, with what each is for. */
export const FIRST_STEPS: { step: Step; name: string; why: string; path: string }[] = [
  {
    step: "settings",
    name: "The plant's clock, units and currency",
    why: "hours are planned by it, prices and temperatures shown in it",
    path: "/plant/settings",
  },
  {
    step: "people",
    name: "The people who work with it",
    why: "each record carries its author; each role sees what is theirs",
    path: "/plant/people",
  },
  {
    step: "line",
    name: "A line and its mixer",
    why: "the mixer warms the dough and limits its size; the oven sets the cadence",
    path: "/plant/lines/new",
  },
  {
    step: "specification",
    name: "A flour and what is asked of it",
    why: "every certificate is held against it",
    path: "/flour/specification",
  },
  {
    step: "lot",
    name: "Its first certificate",
    why: "water and time follow from the lot that is in the silo",
    path: "/flour/receive",
  },
  {
    step: "product",
    name: "A product from a template",
    why: "formula and method of its family, yours to change",
    path: "/dough/new",
  },
  {
    step: "batch",
    name: "The first mixing sheet",
    why: "what is weighed, how cold the water is, and when",
    path: "/floor",
  },
];

interface Kept {
  skipped: Step[];
  closed: boolean;
}

const begin = (kept?: Partial<Kept>): Kept => ({ skipped: [], closed: false, ...kept });

/** How far a plant is from its first mixing sheet; nothing where it has one. */
export function useFirstSteps() {
  const { data: has } = useQuery({
    queryKey: ["beginning"],
    queryFn: () => answer(api.GET("/api/v1/plant/beginning")),
  });
  const [kept, keep] = useKept("ironpeel.first-steps", begin);
  if (!has || has.batch) return undefined;
  const next = FIRST_STEPS.find(({ step }) => !has[step] && !kept.skipped.includes(step));
  return {
    has,
    next,
    ...kept,
    skip: (step: Step, isSkipped: boolean) =>
      keep((now) => ({
        skipped: isSkipped ? [...now.skipped, step] : now.skipped.filter((one) => one !== step),
      })),
    close: (closed: boolean) => keep({ closed }),
  };
}

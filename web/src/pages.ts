// The pages of each link, loaded together when one of them is first asked for.

export const start = () => import("./start/StartPage");
export const flour = () => import("./flour/pages");
export const curve = () => import("./curve/pages");
export const water = () => import("./water/pages");
export const dough = () => import("./dough/pages");
export const method = () => import("./method/pages");
export const floor = () => import("./floor/pages");
export const run = () => import("./floor/runPages");
export const oven = () => import("./oven/pages");
export const judging = () => import("./judging/pages");
export const results = () => import("./results/pages");
export const plant = () => import("./plant/pages");
export const people = () => import("./people/pages");
export const dialogs = () => import("./shell/dialogs");

/** By the first word of their addresses. */
const OF: Record<string, () => Promise<unknown>> = {
  "": start,
  flour,
  water,
  dough,
  trials: dough,
  method,
  floor,
  batches: floor,
  board: run,
  oven,
  judge: judging,
  results,
  plant,
};

/** What does not come now is asked for again when it is wanted, and said then. */
const inGoodTime = (load: (() => Promise<unknown>) | undefined) =>
  void load?.().catch(() => undefined);

/** Loads the pages an address stands among, before the router asks for its own. */
export const loadOf = (path: string) => inGoodTime(OF[path.split("/")[1] ?? ""]);

/** Loads the other links' pages, so that a lost connection takes none of them away. */
export function loadAll() {
  for (const load of [...Object.values(OF), curve, people, dialogs]) inGoodTime(load);
}

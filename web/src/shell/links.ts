/** The links of the chain, in the order of work. */
export const LINKS = [
  { key: "flour", name: "Flour", path: "/flour" },
  { key: "water", name: "Water", path: "/water" },
  { key: "dough", name: "Dough", path: "/dough" },
  { key: "method", name: "Method", path: "/method" },
  { key: "floor", name: "Floor", path: "/floor" },
  { key: "oven", name: "Oven", path: "/oven" },
  { key: "results", name: "Results", path: "/results" },
] as const;

export type LinkKey = (typeof LINKS)[number]["key"];

import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { answer, api } from "../api/client";
import type { Draft } from "./edited";
import { useScenario } from "./ScenarioProvider";

/** Puts the names its flours have now on an edited formula: they may have been renamed since. */
export function useFlourNames() {
  const { draft, amend } = useScenario();
  const names = useQuery({
    queryKey: ["flour names"],
    enabled: draft !== undefined,
    queryFn: () => answer(api.GET("/api/v1/flour-names")),
  }).data;
  useEffect(() => {
    if (names && draft) amend((draft) => renamed(draft, names));
  }, [names, draft, amend]);
}

function renamed(draft: Draft, names: Record<string, string>): Draft {
  const now = <Name extends string | null | undefined>(name: Name) =>
    name && Object.hasOwn(names, name) ? names[name] : name;
  const { flours = [], parts = [] } = draft;
  const had = [...flours.map((one) => one.name), ...parts.map((one) => one.flour)];
  if (had.every((name) => now(name) === name)) return draft;
  return {
    ...draft,
    flours: flours.map((one) => ({ ...one, name: now(one.name) })),
    parts: parts.map((one) => ({ ...one, flour: now(one.flour) })),
  };
}

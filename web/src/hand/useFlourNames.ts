import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { answer, api } from "../api/client";
import { useHand, type Draft } from "./HandProvider";

/** Puts the names its flours have now on an edited formula: they may have been renamed since. */
export function useFlourNames() {
  const { draft, amend } = useHand();
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
  const had = [
    ...(draft.flours ?? []).map((one) => one.name),
    ...(draft.parts ?? []).map((one) => one.flour),
  ];
  if (!had.some((name) => name && name in names)) return draft;
  return {
    ...draft,
    flours: draft.flours?.map((one) => ({ ...one, name: names[one.name ?? ""] ?? one.name })),
    parts: draft.parts?.map((one) =>
      one.flour ? { ...one, flour: names[one.flour] ?? one.flour } : one,
    ),
  };
}

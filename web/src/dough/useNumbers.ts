import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";

/** The plant's numbers: rules of the stair and the ingredients. */
export function useNumbers() {
  return useQuery({
    queryKey: ["numbers"],
    queryFn: () => answer(api.GET("/api/v1/numbers")),
  }).data;
}

/** What an ingredient is called here. */
export function useLabels() {
  const ingredients = useNumbers()?.ingredients;
  return (ingredient: string) =>
    ingredients?.find((one) => one.ingredient === ingredient)?.label ??
    ingredient.replaceAll("_", " ");
}

import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";

/** The plant's parameters: coefficients and ingredients. */
export function usePlantParameters() {
  return useQuery({
    queryKey: ["parameters"],
    queryFn: () => answer(api.GET("/api/v1/plant/parameters")),
  }).data;
}

/** What an ingredient is called here. */
export function useLabels() {
  const ingredients = usePlantParameters()?.ingredients;
  return (ingredient: string) =>
    ingredients?.find((one) => one.ingredient === ingredient)?.label ??
    ingredient.replaceAll("_", " ");
}

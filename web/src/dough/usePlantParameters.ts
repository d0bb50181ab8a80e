import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";

/** The plant's numbers: rules of the build-up and the ingredients. */
export function usePlantParameters() {
  return useQuery({
    queryKey: ["numbers"],
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

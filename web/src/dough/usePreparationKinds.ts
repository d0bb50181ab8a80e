import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";

/** The kinds of preparation with what one of each is begun with. */
export function usePreparationKinds() {
  return useQuery({
    queryKey: ["preparation kinds"],
    staleTime: Infinity,
    queryFn: () => answer(api.GET("/api/v1/preparation-kinds")),
  }).data;
}

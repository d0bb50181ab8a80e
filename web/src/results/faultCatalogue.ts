import { answer, api } from "../api/client";

/** What can be picked, and what it is told by. */
export const CATALOGUE = {
  queryKey: ["faults"],
  staleTime: Infinity,
  queryFn: () => answer(api.GET("/api/v1/faults")),
};

import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";

export function useFlours() {
  return useQuery({
    queryKey: ["flours"],
    queryFn: () => answer(api.GET("/api/v1/flours")),
  }).data;
}

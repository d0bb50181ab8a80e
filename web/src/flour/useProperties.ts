import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";

/** Every property a laboratory measures, in the order a certificate lists them. */
export const useProperties = () =>
  useQuery({
    queryKey: ["properties"],
    staleTime: Infinity,
    queryFn: () => answer(api.GET("/api/v1/properties")),
  }).data ?? [];

import { useQuery } from "@tanstack/react-query";
import { FLOURS } from "./questions";

export const useFlours = () => useQuery(FLOURS).data;

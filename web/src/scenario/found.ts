import { queryOptions } from "@tanstack/react-query";
import { answer, api } from "../api/client";

/** Every product of the plant. */
export const PRODUCTS = queryOptions({
  queryKey: ["products"],
  queryFn: () => answer(api.GET("/api/v1/products")),
});

/** Every line of the plant. */
export const LINES = queryOptions({
  queryKey: ["lines"],
  queryFn: () => answer(api.GET("/api/v1/lines")),
});

/** Lots whose code begins with what was typed. */
export const lotsNamed = (text: string) =>
  queryOptions({
    queryKey: ["find", text],
    queryFn: () => answer(api.GET("/api/v1/find", { params: { query: { q: text } } })),
  });

/** What can be wrong, and what it is told by. */
export const FAULTS = queryOptions({
  queryKey: ["faults"],
  staleTime: Infinity,
  queryFn: () => answer(api.GET("/api/v1/faults")),
});

import { queryOptions } from "@tanstack/react-query";
import { answer, api, isFinal, type Schemas } from "../api/client";

// What the server is asked about a dough, each with the name its answer is kept under.

export const productOf = (slug: string) =>
  queryOptions({
    queryKey: ["product", slug],
    queryFn: () => answer(api.GET("/api/v1/products/{slug}", { params: { path: { slug } } })),
  });

export const lotOf = (id: string) =>
  queryOptions({
    queryKey: ["lot", id],
    queryFn: () => answer(api.GET("/api/v1/lots/{lot_id}", { params: { path: { lot_id: id } } })),
  });

export const lotsOf = (flourId: string) =>
  queryOptions({
    queryKey: ["lots of", flourId],
    queryFn: () => answer(api.GET("/api/v1/lots", { params: { query: { flour_id: flourId } } })),
  });

export const FLOURS = queryOptions({
  queryKey: ["flours"],
  queryFn: () => answer(api.GET("/api/v1/flours")),
});

type Input = Schemas["ScenarioInput"];

/** The chain as it is, and what moved since `before`. */
export const chainOf = (input: Input | null, before: Input | null) =>
  queryOptions({
    queryKey: ["chain", input, before],
    enabled: input !== null,
    retry: (count, error) => !isFinal(error) && count < 2,
    queryFn: ({ signal }) => {
      if (!input) throw new Error("asked without a product");
      const body: Schemas["WhatIf"] = before ? { now: input, before } : { now: input };
      return answer(api.POST("/api/v1/chain", { body, signal }));
    },
  });

/** The formula's flours beside its first, edited or as recorded. */
export const otherFlours = (
  product: Schemas["ProductView"] | undefined,
  draft: Schemas["EditedFormula"] | undefined,
  flours: Schemas["FlourView"][] | undefined,
) =>
  (draft?.flours ?? product?.formula.flours ?? [])
    .slice(1)
    .flatMap((share) => flours?.find((flour) => flour.name === share.name) ?? []);

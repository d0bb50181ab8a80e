import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { answer, api } from "../api/client";
import { useHand } from "../hand/HandProvider";
import { useLot, useProduct } from "../hand/useChain";

export function useFlours() {
  return useQuery({
    queryKey: ["flours"],
    queryFn: () => answer(api.GET("/api/v1/flours")),
  }).data;
}

/** The flour a page is about: the one in its address, else the lot's in hand, else the product's. */
export function useFlourInView() {
  const { flourId } = useParams();
  const { hand } = useHand();
  const lot = useLot(hand.lot).data;
  const product = useProduct(hand.product).data;
  const flours = useFlours();
  const id = flourId ?? lot?.flour.id ?? product?.flour.id ?? flours?.[0]?.id;
  return { flour: flours?.find((flour) => flour.id === id), flours };
}

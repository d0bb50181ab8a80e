import { useParams } from "react-router";
import { useScenario } from "../scenario/ScenarioProvider";
import { useFlours } from "../scenario/useFlours";
import { useLot, useLotsOf, useProduct } from "../scenario/useChain";

/**
 * The flour a page is about: the one in its address, else the selected lot's, else the product's.
 * None until it is known which: what is typed into one flour's fields is never another's.
 */
export function useFlourInView() {
  const { flourId } = useParams();
  const { scenario } = useScenario();
  const lot = useLot(scenario.lot);
  const product = useProduct(scenario.product);
  const ofProduct = product.data?.flour.id;
  const listed = useLotsOf(ofProduct).data?.lots.some((one) => one.id === scenario.lot);
  const flours = useFlours();
  const ofLot = lot.data?.flour.id ?? (listed ? ofProduct : undefined);
  const undecided = product.isLoading || (lot.isLoading && !ofLot);
  const ofHand = undecided ? undefined : (ofLot ?? ofProduct ?? flours?.[0]?.id);
  const id = flourId ?? ofHand;
  return { flour: flours?.find((flour) => flour.id === id), flours };
}

import { useOutletContext } from "react-router";
import type { ChainInHand } from "../scenario/useChain";

/** The selected product with its chain, as the shell holds it. */
export const useScenarioContext = () => useOutletContext<ChainInHand>();

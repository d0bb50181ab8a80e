import { useOutletContext } from "react-router";
import type { ChainInHand } from "../scenario/useChain";

/** The dough in hand with its chain, as the shell holds it. */
export const useScenarioContext = () => useOutletContext<ChainInHand>();

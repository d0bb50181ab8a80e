import { useOutletContext } from "react-router";
import type { ChainInHand } from "../hand/useChain";

/** The dough in hand with its chain, as the shell holds it. */
export const useHeld = () => useOutletContext<ChainInHand>();

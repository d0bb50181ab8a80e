import { Link } from "react-router";
import { useProduct } from "../hand/useChain";
import { useHand } from "../hand/HandProvider";
import { useHeld } from "./useHeld";

/** What a link of the chain shows while it has nothing to show. */
export function NoHand({ link }: { link: string }) {
  const { chain, refused } = useHeld();
  const { hand } = useHand();
  const { error } = useProduct(hand.product);
  if (chain?.trouble) {
    return (
      <div className="max-w-2xl py-10">
        <h1>The chain stops at {chain.trouble.link}</h1>
        <p className="mt-2">{chain.trouble.says}.</p>
      </div>
    );
  }
  if (refused) return <p className="py-10 text-stop">{refused.message}</p>;
  if (error) return <p className="py-10 text-stop">{error.message}.</p>;
  if (hand.product) return <p className="py-10 text-iron">Computing the {link} …</p>;
  return (
    <div className="max-w-2xl py-10">
      <h1>No dough in hand</h1>
      <p className="mt-2">
        The {link} is worked out for one product from one lot of flour. Choose a product, and its
        newest lot comes with it.
      </p>
      <p className="mt-4">
        <Link to="/" className="act act-main">
          Choose a product
        </Link>
      </p>
    </div>
  );
}

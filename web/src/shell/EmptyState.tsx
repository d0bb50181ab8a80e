import type { ReactNode } from "react";
import { Link, type To } from "react-router";
import { isFinal, type Schemas } from "../api/client";
import { writeScenario, type Scenario } from "../scenario/scenario";
import { useLot, useLotsOf, useProduct } from "../scenario/useChain";
import { useScenario } from "../scenario/ScenarioProvider";
import { useScenarioContext } from "./useScenarioContext";

/** What is missing for the chain to be computed, and the way out; nothing while it is under way. */
function useWanting(): ReactNode {
  const { scenario, search } = useScenario();
  const { product, others, lost } = useScenarioContext();
  const asked = [useProduct(scenario.product), useLot(scenario.lot)];
  const lots = useLotsOf(product?.flour.id);
  const error = asked.find((one) => one.error)?.error ?? lots.error;
  const message = (heading: string, text: string, way: { to: To; word: string }) => (
    <div className="max-w-2xl py-10" role="alert">
      <h1>{heading}</h1>
      <p className="mt-2">{text}.</p>
      <p className="mt-4">
        <Link className="act act-main" to={way.to}>
          {way.word}
        </Link>
      </p>
    </div>
  );
  const start = { to: "/", word: "Choose a product" };
  const none = (
    flour: string,
    [newest]: Schemas["LotRow"][],
    take: (lot: string) => Partial<Scenario>,
  ) =>
    message(
      "No released lot",
      `Every lot of ${flour} waits for a decision or a release, or was rejected`,
      {
        to: { search: writeScenario({ ...scenario, ...take(newest?.id ?? "") }).toString() },
        word: `Look at it with ${newest?.code}, the newest`,
      },
    );
  const intake = { to: { pathname: "/flour/receive", search }, word: "Import certificate" };
  if (error && isFinal(error)) return message("Not found", error.message, start);
  if (error || lost)
    return message(
      "The server does not answer",
      "This is asked again as soon as it does; what you set and typed is kept",
      { to: "/", word: "To the start" },
    );
  if (product && lots.data?.lots.length === 0 && !scenario.lot)
    return message("No lot of its flour", `No lot of ${product.flour.name} is on record`, intake);
  const without = others.find((other) => other.known && other.lots.length === 0);
  if (without)
    return message("No lot of a flour", `No lot of ${without.flour.name} is on record`, intake);
  const barred = product && lots.data && !scenario.lot && !lots.data.usual;
  if (barred) return none(product.flour.name, lots.data.lots, (lot) => ({ lot }));
  const kept = others.find(
    ({ known, lot, lots, usual }) =>
      known && !lot && !usual && !lots.some((one) => scenario.others.includes(one.id)),
  );
  if (kept)
    return none(kept.flour.name, kept.lots, (lot) => ({ others: [...scenario.others, lot] }));
  return null;
}

/** What a link of the chain shows while it has nothing to show. */
export function EmptyState({ link }: { link: string }) {
  const { chain, refused } = useScenarioContext();
  const { scenario } = useScenario();
  const wanting = useWanting();
  if (chain?.error) {
    return (
      <div className="max-w-2xl py-10">
        <h1>The chain stops at {chain.error.link}</h1>
        <p className="mt-2">{chain.error.message}.</p>
      </div>
    );
  }
  if (refused) return <p className="py-10 text-stop">{refused.message}</p>;
  if (wanting) return wanting;
  if (scenario.product)
    return <h1 className="py-10 text-base font-normal text-iron">Computing the {link} …</h1>;
  return (
    <div className="max-w-2xl py-10">
      <h1>No product selected</h1>
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

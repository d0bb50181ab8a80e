import { NavLink } from "react-router";
import type { Schemas } from "../api/client";
import type { ChainInHand } from "../scenario/useChain";
import { useFormat, type Format } from "../units/format";
import { LINKS, type LinkKey } from "./links";
import { useLastResults, type LastResults } from "./useLastResults";
import { VERDICT } from "./verdict";
import { useScenario } from "../scenario/ScenarioProvider";

interface Face {
  figure: string;
  under: string;
  colour?: string;
  /** The link cannot stand, or wants a look. */
  stop?: boolean;
}

function faces(
  { chain, lot, product }: ChainInHand,
  last: LastResults,
  format: Format,
): Record<LinkKey, Face> {
  const empty = (under: string): Face => ({
    figure: "–",
    under: product ? "waits for the step before" : under,
  });
  const all: Record<LinkKey, Face> = {
    flour: lot
      ? { figure: lot.code, under: lot.flour.name }
      : { figure: "–", under: "a lot, held to its specification" },
    water: empty("what the flour takes"),
    dough: empty("the formula, scaled and weighed"),
    method: empty("stages, heat, water temperature"),
    floor: empty("tonight's mixing sheet"),
    oven: { figure: "–", under: "core temperatures of the bake" },
    results: { figure: "Batches", under: "charts, learned numbers, recall" },
  };
  if (last.bake) {
    all.oven.figure =
      last.bake.arrival_pct == null ? "–" : format.percent(last.bake.arrival_pct, 0);
    all.oven.under = `arrival, ${last.bake.product}`;
  }
  if (last.score?.score != null) {
    all.results = {
      figure: `score ${format.number(last.score.score, 0)}`,
      under: `${last.score.product}, ${format.moment(last.score.planned_for)}`,
    };
  }
  if (!chain) return all;
  const { verdict } = chain.flour;
  const { mark, word, colour } = VERDICT[verdict];
  if (lot) {
    const asked = lot.certificate.specification != null;
    all.flour.under = `${lot.flour.name} · ${asked ? `${mark} ${word}` : "no specification"}`;
    all.flour.colour = asked ? colour : "text-iron";
    all.flour.stop = verdict === "out";
  }
  if (chain.water) {
    const { floor_pct, low_pct, high_pct, cautions } = chain.water;
    const band = `likely ${format.number(low_pct)} to ${format.number(high_pct)}`;
    all.water = { figure: format.percent(floor_pct), under: band };
    if (cautions.length > 0) {
      all.water.under = `${band} · caution`;
      all.water.colour = "text-crust";
    }
  }
  if (chain.dough) {
    const { dough_kg, doughs, pieces } = chain.dough;
    const count = doughs === 1 ? "1 dough" : `${doughs} doughs`;
    all.dough = {
      figure: format.mass(dough_kg),
      under: `${count} · ${format.number(pieces, 0)} pieces`,
    };
  }
  if (chain.heat) {
    const { water_c, ice_kg, reachable, dough_c } = chain.heat;
    const time = format.minutes(chain.method.total_min);
    all.method =
      ice_kg > 0
        ? {
            figure: `${format.mass(ice_kg)} ice`,
            under: `dough ${format.temperature(dough_c)} · ${time}`,
          }
        : {
            figure: `water ${format.temperature(water_c)}`,
            under: `dough ${format.temperature(dough_c)} · ${time}`,
          };
    if (!reachable) {
      all.method.under = `target out of reach · ${time}`;
      all.method.stop = true;
    }
  }
  if (chain.sheet) all.floor = { figure: "Mixing sheet", under: "ready to print or plan" };
  if (chain.error)
    all[chain.error.link] = { figure: "stops here", under: chain.error.message, stop: true };
  return all;
}

/** What each link shows of a move: its main figure's. */
const MAIN: Record<LinkKey, string[]> = {
  flour: [],
  water: ["floor_pct"],
  dough: ["dough_kg"],
  method: ["ice_kg", "water_c"],
  floor: [],
  oven: [],
  results: [],
};

function moved(
  link: LinkKey,
  changes: Schemas["FigureChange"][],
): Schemas["FigureChange"] | undefined {
  return MAIN[link].map((key) => changes.find((move) => move.figure === key)).find(Boolean);
}

/** The chain: every link with its live figure, the moved ones marked with how much. */
export function ChainBar({ held }: { held: ChainInHand }) {
  const format = useFormat();
  const { search } = useScenario();
  const face = faces(held, useLastResults(held.product?.slug), format);
  return (
    <nav aria-label="The chain" className="screen-only border-y border-ink bg-sheet">
      <ol className="mx-auto flex max-w-7xl overflow-x-auto px-3 sm:px-6">
        {LINKS.map(({ key, name, path }, at) => {
          const { figure, under, colour, stop } = face[key];
          const move = moved(key, held.changes);
          return (
            <li key={key} className="relative min-w-36 flex-1 basis-0">
              {at > 0 && (
                <svg
                  aria-hidden
                  viewBox="0 0 12 80"
                  preserveAspectRatio="none"
                  className="absolute top-0 -left-1.5 h-full w-3"
                >
                  <path
                    d="M1 0 11 40 1 80"
                    fill="none"
                    stroke="var(--color-hair)"
                    strokeWidth="1.5"
                  />
                </svg>
              )}
              <NavLink
                to={{ pathname: path, search }}
                className={({ isActive }) =>
                  `block h-full border-b-4 px-3 pt-2 pb-1.5 hover:bg-faint lg:px-4 ${isActive ? "border-crust" : "border-transparent"}`
                }
              >
                <span className="flex items-baseline justify-between text-xs text-iron">
                  <span>{name}</span>
                  <kbd aria-hidden className="font-sans">
                    {at + 1}
                  </kbd>
                </span>
                <span className="flex flex-wrap items-baseline gap-x-2 whitespace-nowrap">
                  <span
                    className={`figure max-w-full truncate text-lg lg:text-xl ${stop ? "text-stop" : ""}`}
                    title={figure}
                  >
                    {figure}
                  </span>
                  {move && (
                    <span
                      key={move.after}
                      className="moved rounded-xs px-1 text-sm font-semibold text-crust"
                    >
                      {format.figure(move.delta, move.unit === "%" ? "" : move.unit, true)}
                    </span>
                  )}
                </span>
                <span
                  className={`block truncate text-xs ${stop ? "text-stop" : (colour ?? "text-iron")}`}
                  title={under}
                >
                  {under}
                </span>
              </NavLink>
            </li>
          );
        })}
      </ol>
    </nav>
  );
}

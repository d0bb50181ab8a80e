import type { Schemas } from "../api/client";
import { LineForm } from "../plant/LineForm";
import { EmptyState } from "../shell/EmptyState";
import { useScenarioContext } from "../shell/useScenarioContext";
import { useFormat } from "../units/format";
import { MethodTabs } from "./MethodTabs";
import { useGuide } from "./useMethod";

/** The line's mixer and what it gives the dough, and what comes after it. */
export function LinePage() {
  const { product, chain } = useScenarioContext();
  const guide = useGuide();
  const format = useFormat();
  if (!product || !chain || !guide)
    return (
      <>
        <MethodTabs />
        <EmptyState link="method" />
      </>
    );
  const { mixer } = product.line;
  return (
    <>
      <MethodTabs />
      <div className="flex flex-wrap items-end gap-x-10 gap-y-3">
        <div>
          <h1>{product.line.name}</h1>
          <p className="text-sm text-iron">
            {mixer.name}, {mixer.kind}, {format.mass(mixer.min_kg, 1)} to{" "}
            {format.mass(mixer.max_kg, 1)} of dough
          </p>
        </div>
        <p>
          <span className="figure text-4xl">
            {format.number(chain.method.mixing_kj_per_kg)} kJ/kg
          </span>
          <span className="block text-sm">
            {CLASSES[guide.mixing_class]} mixing in {format.minutes(chain.method.mixing_min)}
          </span>
        </p>
      </div>
      <div className="mt-6 grid gap-x-12 gap-y-8 lg:grid-cols-2">
        <div className="space-y-7">
          <Developments guide={guide} mixes={chain.method.mixing_kj_per_kg} />
          <Power guide={guide} mixes={chain.method.mixing_kj_per_kg} />
          <p className="text-sm">
            Guards shut; isolate and lock out before hands go in. The maker's limits of mass and
            time go before these.
          </p>
        </div>
        <LineForm key={product.line.revision.id} line={product.line} kinds={guide.mixer_kinds} />
      </div>
    </>
  );
}

const CLASSES = {
  hand_folds: "hand folds",
  short: "short",
  improved: "improved",
  intensive: "intensive",
} as const satisfies Record<Schemas["MixingClass"], string>;

/** What each class of mixing takes on this mixer. */
function Developments({ guide, mixes }: { guide: Schemas["MethodGuide"]; mixes: number }) {
  const format = useFormat();
  const band = (of: Schemas["Estimate"], decimals: number) =>
    `${format.number(of.low, decimals)} to ${format.number(of.high, decimals)}`;
  return (
    <section aria-labelledby="development">
      <h2 id="development">Energy to development</h2>
      <table className="mt-1 w-full">
        <thead>
          <tr className="border-b border-ink">
            {["mixing", "kJ/kg", "minutes fast", "warms it by"].map((word, at) => (
              <th scope="col" key={word} className={at === 0 ? "py-1" : "text-right"}>
                {word}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {guide.developments.map((one) => (
            <tr
              key={one.class}
              className={`border-b border-hair ${one.class === guide.mixing_class ? "bg-faint font-semibold" : ""}`}
            >
              <th scope="row" className="py-1 text-base font-[inherit] text-ink">
                {CLASSES[one.class]}
                {one.class === guide.mixing_class && (
                  <span className="text-sm text-iron">, this method: {format.number(mixes)}</span>
                )}
              </th>
              <td className="text-right">{band(one.kj_per_kg, 0)}</td>
              <td className="text-right">{one.fast_min ? band(one.fast_min, 1) : "–"}</td>
              <td className="text-right">
                {format.apart(one.warms_c.low)} to {format.apart(one.warms_c.high)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-sm text-iron">
        After the method's slow minutes. House defaults; the dough says when it is developed, and
        the same dough has taken very different minutes.
      </p>
    </section>
  );
}

interface PowerProps {
  guide: Schemas["MethodGuide"];
  mixes: number;
}

/** What measured doughs say of the mixer's power. */
function Power({ guide, mixes }: PowerProps) {
  const format = useFormat();
  const { measured_kj_per_kg: measured, agreeing } = guide.friction_factor ?? {};
  return (
    <section aria-labelledby="power">
      <h2 id="power">Measured mixer energy</h2>
      {measured == null ? (
        <p className="mt-1 text-sm text-iron">
          No dough of this method was measured on this line yet. Record flour, room, water and dough
          under Heat, and the mixer's power is learned from them.
        </p>
      ) : (
        <p className="mt-1">
          {format.count(guide.measured.length, "measured dough gives", "measured doughs give")}{" "}
          <b className="figure">{format.number(measured)} kJ/kg</b> for this mixing; the line's
          figures say <b className="figure">{format.number(mixes)}</b>.{" "}
          {agreeing && (
            <>
              They would agree at {format.number(agreeing.slow_kj_per_kg_min, 2)} slow and{" "}
              {format.number(agreeing.fast_kj_per_kg_min, 2)} kJ/kg a minute fast.
            </>
          )}
        </p>
      )}
    </section>
  );
}

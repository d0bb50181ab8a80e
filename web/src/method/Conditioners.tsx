import type { Schemas } from "../api/client";

const HELPS = { oxidation: "Oxidation", relaxation: "Relaxation" } as const;
const NEEDS = { none: "none needed", little: "a little", usual: "as usual", much: "much" } as const;

/** What the flour's strength and age ask for besides flour, water, yeast and salt. */
export function Conditioners({ needs }: { needs: Schemas["Conditioning"][] }) {
  return (
    <section aria-labelledby="conditioners">
      <h2 id="conditioners">Oxidation and relaxation demand</h2>
      <dl className="mt-1">
        {needs.map((need) => (
          <div key={need.help} className="border-t border-hair py-1.5">
            <dt className="flex justify-between">
              <b>{HELPS[need.help]}</b>
              <span className="figure">{NEEDS[need.need]}</span>
            </dt>
            <dd className="text-sm text-iron">
              {need.because.length > 0 && `${need.because.join("; ")}. `}
              {need.need !== "none" &&
                `Usual: ${need.usual}, ${need.goes_into}. Clean label: ${need.clean_label}.`}
            </dd>
          </div>
        ))}
      </dl>
      <p className="mt-1 text-sm text-iron">
        Doses are the supplier's and your law's: some oxidants are banned in many countries.
      </p>
    </section>
  );
}

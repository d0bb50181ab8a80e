import { Link } from "react-router";
import { useScenario } from "../scenario/ScenarioProvider";
import { FIRST_STEPS, useFirstSteps } from "./useFirstSteps";

/** The way from an empty plant to its first mixing sheet; each step ticks itself. */
export function FirstSteps() {
  const steps = useFirstSteps();
  const { search } = useScenario();
  if (!steps) return null;
  const { has, next, skipped, closed, skip, close } = steps;
  if (closed)
    return (
      <p className="mb-6 text-sm">
        <button type="button" className="link" onClick={() => close(false)}>
          Show the first steps again
        </button>
      </p>
    );
  return (
    <section aria-labelledby="first-steps" className="mb-10">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h1 id="first-steps">To the first mixing sheet</h1>
        <button type="button" className="link text-sm" onClick={() => close(true)}>
          Put away
        </button>
      </div>
      <ol className="mt-3 border-t border-ink">
        {FIRST_STEPS.map(({ step, name, why, path }, at) => (
          <li
            key={step}
            aria-current={step === next?.step ? "step" : undefined}
            className="flex flex-wrap items-baseline gap-x-4 border-b border-b-hair border-l-4 border-l-transparent py-2 pl-3 aria-[current]:border-l-crust"
          >
            <span className="figure w-6 text-iron" aria-hidden>
              {has[step] ? "✓" : at + 1}
            </span>
            <span className="min-w-64 flex-1">
              <Link
                to={{ pathname: path, search }}
                className={step === next?.step ? "link font-semibold" : "link"}
              >
                {name}
              </Link>
              <span className="block text-sm text-iron">{why}</span>
            </span>
            {has[step] ? (
              <span className="text-sm text-moss">done</span>
            ) : (
              <button
                type="button"
                className="link text-sm"
                aria-label={`${skipped.includes(step) ? "Do not skip" : "Skip"}: ${name}`}
                onClick={() => skip(step, !skipped.includes(step))}
              >
                {skipped.includes(step) ? "skipped; take it up" : "Skip"}
              </button>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}

/** What comes next, on every other view. */
export function NextStep({ path }: { path: string }) {
  const steps = useFirstSteps();
  const { search } = useScenario();
  if (!steps?.next || steps.closed || path === "/") return null;
  const { next, has } = steps;
  const done = FIRST_STEPS.filter(({ step }) => has[step]).length;
  return (
    <p className="screen-only border-b border-hair bg-faint px-6 py-2 text-sm">
      <Link to={{ pathname: "/", search }} className="link">
        First steps
      </Link>
      , {done} of {FIRST_STEPS.length} done. {path === next.path ? "This one" : "Next"}:{" "}
      {path === next.path ? (
        <b>{next.name}</b>
      ) : (
        <Link to={{ pathname: next.path, search }} className="link font-semibold">
          {next.name}
        </Link>
      )}
      , because {next.why}.
    </p>
  );
}

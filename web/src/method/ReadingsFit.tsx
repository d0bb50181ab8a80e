import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, Refused, type Schemas } from "../api/client";
import { useFormula } from "../dough/useFormula";
import { useScenario } from "../scenario/ScenarioProvider";
import { lastOfSameDough } from "../scenario/sameDough";
import { Refusal } from "../form/Refusal";
import { useKept } from "../storage/useKept";
import { useScenarioContext } from "../shell/useScenarioContext";
import { useFormat } from "../units/format";
import { NumberField } from "../form/NumberField";
import { Select } from "../form/Select";
import { Form } from "../form/Form";

const READ_OF: [Schemas["ReadOf"], string][] = [
  ["jar", "the jar"],
  ["bulk", "the dough"],
];

interface Readings {
  of: Schemas["ReadOf"];
  rows: { minutes: number; rise_pct: number }[];
}

/** A speed as it is kept: to the hundredth. */
const inTwo = (rate: number) => Math.round(rate * 100) / 100;

const KEY = "ironpeel.readings.";
const begin = (kept?: Partial<Readings>): Readings => ({ of: "jar", rows: [], ...kept });

/** Tonight's dough by readings of its jar or of itself: how fast it goes, and when it will stand where. */
export function ReadingsFit({ product }: { product: string }) {
  const { input } = useScenarioContext();
  const { scenario, change } = useScenario();
  const { parts, set: setFormula } = useFormula();
  const starter = parts.find((part) => part.kind === "starter");
  const format = useFormat();
  const [read, set] = useKept(KEY + product, begin);
  const [minutes, setMinutes] = useState<number | null>(null);
  const [rise, setRise] = useState<number | null>(null);
  // The readings are held against the model, not against what they taught it already.
  const body = input &&
    read.rows.length > 0 && {
      scenario: { ...input, run_settings: { ...input.run_settings, rate: undefined } },
      of: read.of,
      readings: read.rows,
    };
  const { data, error, isPlaceholderData } = useQuery({
    queryKey: ["followed", body],
    enabled: body !== false && body !== null,
    placeholderData: lastOfSameDough(body),
    queryFn: ({ signal }) => {
      if (!body) throw new Error("asked without readings");
      return answer(api.POST("/api/v1/chain/fermentation-tracking", { body, signal }));
    },
  });
  const refused = error instanceof Refused;
  const mark = (one: Schemas["MarkReached"]) => {
    const hours = (h: number | null | undefined) => (h == null ? "later" : format.minutes(h * 60));
    return one.at_h == null
      ? "not before the oven"
      : `${hours(one.at_h)}, likely ${hours(one.early_h)} to ${hours(one.late_h)}`;
  };
  return (
    <section aria-labelledby="followed" className="screen-only">
      <h2 id="followed">Tonight's readings</h2>
      <Form
        className="mt-1 flex items-end gap-3"
        onSubmit={() => {
          if (minutes === null || rise === null) return;
          set(({ rows }) => ({ rows: [...rows, { minutes, rise_pct: rise }] }));
          setMinutes(null);
          setRise(null);
        }}
      >
        <NumberField
          className="w-20"
          label="After, min"
          kind="number"
          value={minutes}
          onSet={setMinutes}
        />
        <NumberField className="w-20" label="Risen" kind="percent" value={rise} onSet={setRise} />
        <Select
          label="What is read"
          place="hidden"
          look="field"
          className="w-24"
          value={read.of}
          options={READ_OF}
          onSet={(of) => set({ of })}
        />
        <button type="submit" className="act">
          Add
        </button>
      </Form>
      <ul className="mt-1 text-sm">
        {read.rows.map((row, at) => (
          <li key={at} className="flex justify-between border-t border-hair py-0.5">
            <span>
              {format.minutes(row.minutes)}: +{format.number(row.rise_pct, 0)} %
            </span>
            <button
              type="button"
              className="px-1 text-iron hover:text-stop"
              aria-label={`Take the reading at ${format.minutes(row.minutes)} out`}
              onClick={() => set(({ rows }) => ({ rows: rows.filter((_, i) => i !== at) }))}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
      {data && read.rows.length > 0 && !refused && (
        <>
          <p className="mt-1">
            It goes at <b className="figure">{format.number(data.rate.rate, 2)}</b> ±{" "}
            {format.number(data.rate.sd, 2)} of the model's speed; +
            {format.number(data.end_rise_pct, 0)} % at the oven.
          </p>
          <p className="flex flex-wrap gap-x-4 text-sm">
            {scenario.rate !== inTwo(data.rate.rate) && (
              <button
                type="button"
                className="link"
                disabled={isPlaceholderData}
                onClick={() => change({ rate: inTwo(data.rate.rate) })}
              >
                Go by it: rise, schedule and yeast
              </button>
            )}
            {starter && starter.rate !== inTwo(data.rate.rate) && (
              <button
                type="button"
                className="link"
                disabled={isPlaceholderData}
                onClick={() => {
                  setFormula(({ parts }) => ({
                    parts: parts.map((part) =>
                      part.kind === "starter" ? { ...part, rate: inTwo(data.rate.rate) } : part,
                    ),
                  }));
                  change({ rate: null });
                }}
              >
                Keep it for {starter.name}
              </button>
            )}
          </p>
          <dl className="text-sm">
            {data.marks.map((one) => (
              <div key={one.rise_pct} className="flex justify-between border-t border-hair py-0.5">
                <dt className="text-iron">+{format.number(one.rise_pct, 0)} %</dt>
                <dd>{mark(one)}</dd>
              </div>
            ))}
          </dl>
        </>
      )}
      {scenario.rate !== null && (
        <p className="text-sm">
          Everything here goes by {format.number(scenario.rate, 2)} of the model's speed.{" "}
          <button type="button" className="link" onClick={() => change({ rate: null })}>
            As the model
          </button>
        </p>
      )}
      {starter?.rate != null && (
        <p className="text-sm text-iron">
          {starter.name} is kept at {format.number(Number(starter.rate), 2)} of the model's speed;
          an edit is recorded with the formula.
        </p>
      )}
      <Refusal error={error} />
    </section>
  );
}

import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { record } from "../api/outbox";
import { Form } from "../form/Form";
import { NumberField } from "../form/NumberField";
import { useSession } from "../session/session";
import { Photographs } from "./Photographs";

interface Props {
  /** Where loaves are set out, under an id of their own. */
  at: string;
  samples: Schemas["Sample"][];
  scores: Schemas["Score"][];
  photographs: Schemas["SamplePhotograph"][];
  /** Whether whoever is here may record. */
  may: boolean;
  onJudge: (code: string) => void;
  onSetOut: () => Promise<void>;
  /** Which dough a sample is of, where there are several. */
  doughOf?: ((sample: Schemas["Sample"]) => string) | undefined;
}

/** Loaves under their codes, who marked which, and the way to set out more. */
export function Samples(props: Props) {
  const { at, samples, scores, photographs, may, onJudge, onSetOut, doughOf } = props;
  const [loaves, setLoaves] = useState<number | null>(3);
  const [twice, setTwice] = useState<number | null>(1);
  const setOut = useMutation({
    networkMode: "always",
    mutationFn: () =>
      record<unknown>({
        path: `${at}/${crypto.randomUUID()}`,
        label: "samples",
        body: { loaves, twice: twice ?? 0 },
      }),
    onSuccess: onSetOut,
  });
  const me = useSession()?.person?.name;
  const next = samples.find(
    (sample) => !scores.some((score) => score.sample_id === sample.id && score.judge === me),
  );
  const place = (of: Schemas["SamplePhotograph"]) =>
    samples.findIndex((one) => one.id === of.sample_id);
  const inOrder = [...photographs].sort((one, other) => place(one) - place(other));
  const ofPhotograph = (of: Schemas["SamplePhotograph"]) => {
    const sample = samples[place(of)];
    if (!sample) return "";
    return `${sample.code}, ${doughOf ? doughOf(sample) : `loaf ${sample.loaf}`}`;
  };
  return (
    <section className="mt-6 border-t-2 border-ink pt-2" aria-label="Samples">
      <h2>Samples</h2>
      {samples.length > 0 && (
        <table className="mt-1">
          <caption className="sr-only">Samples</caption>
          <thead>
            <tr>
              <th className="pr-6">code</th>
              {doughOf && <th className="pr-6">dough</th>}
              <th className="pr-6">loaf</th>
              <th>marked by</th>
            </tr>
          </thead>
          <tbody>
            {samples.map((sample) => {
              const own = scores.filter((score) => score.sample_id === sample.id);
              return (
                <tr key={sample.id} className="border-t border-hair">
                  <td className="pr-6">
                    <Link className="link font-semibold" to={`/judge/${sample.code}`}>
                      {sample.code}
                    </Link>
                  </td>
                  {doughOf && <td className="pr-6">{doughOf(sample)}</td>}
                  <td className="pr-6">{sample.loaf}</td>
                  <td>
                    {own.map((score) => (
                      <span key={score.id} className="mr-4">
                        {score.judge}
                        {score.round === 2 && " once more"}
                        {score.note && <span className="text-iron">: {score.note}</span>}
                      </span>
                    ))}
                    {own.length === 0 && <span className="text-iron">nobody yet</span>}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      <Photographs className="mt-4" photographs={inOrder} of={ofPhotograph} />
      {may && (
        <Form
          className="screen-only mt-3 flex flex-wrap items-end gap-4"
          label="Set loaves out"
          error={setOut.error}
          onSubmit={() => setOut.mutate()}
        >
          <NumberField
            label="Loaves"
            className="w-24"
            kind="number"
            field="loaves"
            value={loaves}
            onSet={setLoaves}
          />
          <NumberField
            label="Met twice, unknowing"
            className="w-40"
            kind="number"
            field="twice"
            value={twice}
            onSet={setTwice}
          />
          <button
            type="submit"
            className={next ? "act" : "act act-main"}
            disabled={setOut.isPending}
          >
            Set out under new codes
          </button>
          {next && (
            <button type="button" className="act act-main" onClick={() => onJudge(next.code)}>
              Judge sample {next.code}
            </button>
          )}
        </Form>
      )}
    </section>
  );
}

import { useQuery } from "@tanstack/react-query";
import { Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import type { ReactNode } from "react";
import { answer, api, type Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { useScenarioContext } from "./useScenarioContext";

export const ORIGIN: Record<Schemas["Origin"], { letter: string; word: string }> = {
  standard: { letter: "S", word: "published standard" },
  physics: { letter: "P", word: "physics" },
  house: { letter: "H", word: "house default, to be calibrated by the plant" },
  plant: { letter: "L", word: "this plant's own, with its reason" },
  learned: { letter: "L", word: "learned from the plant's batches" },
  choice: { letter: "C", word: "somebody's choice" },
};

interface Asked {
  of: string;
  children: ReactNode;
}

/** A figure that answers "why?": formula, inputs, and coefficients with their origin and band. */
export function Derivation({ why, of, children }: Asked & { why: Schemas["Derivation"] }) {
  return (
    <Answering of={of} figure={children}>
      <WhyTable why={why} />
    </Answering>
  );
}

/** A figure of the chain that answers "why?", asked of the server when it is opened. */
export function ChainDerivation({
  link,
  of,
  children,
}: Asked & { link: keyof Schemas["Derivations"] }) {
  return (
    <Answering of={of} figure={children}>
      <Fetched link={link} />
    </Answering>
  );
}

function Fetched({ link }: { link: keyof Schemas["Derivations"] }) {
  const { input } = useScenarioContext();
  const whys = useQuery({
    queryKey: ["whys", input],
    enabled: input !== null,
    queryFn: () => {
      if (!input) throw new Error("asked without a product");
      return answer(api.POST("/api/v1/chain/derivations", { body: input }));
    },
  }).data;
  const why = whys?.[link];
  return why ? <WhyTable why={why} /> : <p className="mt-1 text-iron">Asking …</p>;
}

function Answering({ of, figure, children }: Asked & { figure: ReactNode }) {
  return (
    <Popover as="span" className="inline-block">
      <PopoverButton
        className="decoration-iron underline decoration-dotted decoration-1 underline-offset-4"
        aria-label={`Why: ${of}`}
        title={`Why: ${of}`}
      >
        {figure}
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: "bottom start", gap: 6, padding: 12 }}
        className="z-30 max-w-md border border-ink bg-sheet p-4 text-sm shadow-lg"
      >
        <p className="font-semibold">{of}</p>
        {children}
      </PopoverPanel>
    </Popover>
  );
}

function WhyTable({ why }: { why: Schemas["Derivation"] }) {
  const format = useFormat();
  return (
    <>
      <p className="mt-1">{why.formula}</p>
      <table className="mt-3 w-full">
        <tbody>
          {why.inputs.map((input) => (
            <tr key={input.name} className="border-t border-hair">
              <td className="py-1 pr-3">{input.name}</td>
              <td className="py-1 text-right">{format.figure(input.value, input.unit)}</td>
            </tr>
          ))}
          {why.coefficients.map((one) => (
            <tr key={one.name} className="border-t border-hair align-top">
              <td className="py-1 pr-3">
                {one.name}
                <span className="block text-iron">
                  {ORIGIN[one.origin].letter} · {one.source}
                </span>
              </td>
              <td className="py-1 text-right">
                {format.plain(one.value)} {one.unit}
                {one.low !== one.high && (
                  <span className="block text-iron">
                    {format.plain(one.low)} to {format.plain(one.high)}
                  </span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

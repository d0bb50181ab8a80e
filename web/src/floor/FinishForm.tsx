import { useState } from "react";
import { useFormat } from "../units/format";
import { Keypad } from "./Keypad";
import type { Run } from "./run";
import type { Said } from "./stamp";

interface Props {
  run: Run;
  write: (label: string, said: Said) => void;
}

const REASONS = ["shape", "size", "colour", "torn or open", "collapsed", "foreign matter", "other"];

type Asked = "good" | "rejected" | "mass" | null;

/** Pieces good and rejected with their reason, and what they weigh. */
export function FinishForm({ run, write }: Props) {
  const format = useFormat();
  const [asked, setAsked] = useState<Asked>(null);
  const [good, setGood] = useState<number>();
  const [rejected, setRejected] = useState<number>(0);
  const [mass, setMass] = useState<number>();
  const [reason, setReason] = useState<string>();
  const row = (what: Exclude<Asked, null>, name: string, value: string | undefined) => (
    <button
      type="button"
      className="flex min-h-16 w-full items-baseline justify-between border-b border-hair text-2xl"
      onClick={() => setAsked(what)}
    >
      <span>{name}</span>
      <span className="figure">{value ?? "–"}</span>
    </button>
  );
  return (
    <div className="mt-4">
      {row("good", "Good pieces", good === undefined ? undefined : format.number(good, 0))}
      {row("rejected", "Rejected pieces", format.number(rejected, 0))}
      {rejected > 0 && (
        <div role="group" aria-label="Why rejected" className="flex flex-wrap gap-2 py-2">
          {REASONS.map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={reason === one}
              className={`act min-h-14 text-lg ${reason === one ? "border-crust text-crust" : "border-hair"}`}
              onClick={() => setReason(one)}
            >
              {one}
            </button>
          ))}
        </div>
      )}
      {row("mass", "Mass of all pieces", mass === undefined ? undefined : format.mass(mass))}
      <button
        type="button"
        className="act act-main mt-4 min-h-24 w-full text-4xl"
        disabled={good === undefined}
        onClick={() =>
          write("finished", {
            kind: "finish",
            ...(good !== undefined && { pieces_good: good }),
            pieces_rejected: rejected,
            ...(mass !== undefined && { mass_kg: mass }),
            ...(rejected > 0 && reason && { reasons: [{ reason, pieces: rejected }] }),
          })
        }
      >
        Finish the batch
      </button>
      {asked && (
        <Keypad
          key={asked}
          title={
            asked === "good"
              ? `Good pieces of ${format.number(run.planned.pieces, 0)} planned`
              : asked === "rejected"
                ? "Rejected pieces"
                : "Mass of all pieces"
          }
          unit={asked === "mass" ? "kg" : ""}
          onClose={() => setAsked(null)}
          confirm="Set"
          onEnter={(value) => {
            if (asked === "good") setGood(value);
            if (asked === "rejected") setRejected(value);
            if (asked === "mass") setMass(value);
            setAsked(null);
          }}
        />
      )}
    </div>
  );
}

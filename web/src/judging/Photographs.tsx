import { useState, type ReactNode } from "react";
import type { Schemas } from "../api/client";
import { Modal } from "../shell/Modal";
import { useFormat } from "../units/format";
import { addressOf, VIEWS } from "./photograph";

type Photograph = Schemas["SamplePhotograph"];

interface Props {
  photographs: Photograph[];
  /** Whose a photograph is: a code, or the dough where that may be said. */
  of: (photograph: Photograph) => string;
  className?: string;
}

/** Photographs side by side; each opens large. */
export function Photographs({ photographs, of, className = "" }: Props): ReactNode {
  const format = useFormat();
  const [large, setLarge] = useState<Photograph>();
  if (photographs.length === 0) return null;
  const named = (one: Photograph) => `${of(one)}, ${VIEWS[one.shows]}`;
  return (
    <>
      <ul className={`grid grid-cols-[repeat(auto-fill,minmax(9rem,14rem))] gap-4 ${className}`}>
        {photographs.map((one) => (
          <li key={one.id}>
            <button type="button" className="w-full text-left" onClick={() => setLarge(one)}>
              <img
                src={addressOf(one)}
                alt={named(one)}
                loading="lazy"
                className="aspect-4/3 w-full border border-hair bg-faint object-contain"
              />
              <span aria-hidden className="mt-1 block text-sm">
                {named(one)}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {large && (
        <Modal open onClose={() => setLarge(undefined)} title={named(large)} wide>
          <img
            src={addressOf(large)}
            alt={named(large)}
            className="mt-3 max-h-[70vh] w-full object-contain"
          />
          <p className="mt-2 text-sm text-iron">
            {large.taken_by}, {format.moment(large.taken_at)}. It stays in this plant's records.
          </p>
        </Modal>
      )}
    </>
  );
}

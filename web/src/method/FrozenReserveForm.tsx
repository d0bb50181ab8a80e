import type { Schemas } from "../api/client";
import { DateTimeField } from "../form/DateTimeField";
import { NumberField } from "../form/NumberField";
import { fieldOf, momentOf } from "../units/clock";

/** Pieces to be kept frozen, as it is asked. */
export interface FrozenReserveQuery {
  pieces: number;
  /** As a browser's field keeps a date and a time. */
  on: string;
}

export const spareInput = (spare: FrozenReserveQuery): Schemas["FrozenReserveInput"] => ({
  pieces: spare.pieces,
  on: momentOf(spare.on).toISOString(),
});

const WEEK_MS = 7 * 24 * 3_600_000;

interface Props {
  spare: FrozenReserveQuery | undefined;
  onSpare: (spare: FrozenReserveQuery | undefined) => void;
}

/** Spare pieces that are frozen for another day. */
export function FrozenReserveForm({ spare, onSpare }: Props) {
  if (!spare)
    return (
      <button
        type="button"
        className="act"
        onClick={() => onSpare({ pieces: 4, on: fieldOf(new Date(Date.now() + WEEK_MS)) })}
      >
        Freeze surplus pieces
      </button>
    );
  return (
    <fieldset className="text-sm">
      <legend className="text-iron">Surplus pieces, frozen</legend>
      <div className="flex items-end gap-3">
        <NumberField
          className="w-20"
          label="Pieces"
          kind="number"
          value={spare.pieces}
          onSet={(value) => onSpare({ ...spare, pieces: value ?? 1 })}
          field="spare.pieces"
        />
        <DateTimeField
          label="To be used"
          value={spare.on}
          onSet={(on) => onSpare({ ...spare, on })}
          field="spare.on"
        />
        <button type="button" className="link" onClick={() => onSpare(undefined)}>
          None
        </button>
      </div>
    </fieldset>
  );
}

import { useQuery } from "@tanstack/react-query";
import { fieldOf } from "../units/clock";
import { useFormat } from "../units/format";

interface Props {
  /** What was refused, for the cache. */
  asked: object;
  /** When it would be out if it began as soon as it can. */
  earliest: () => Promise<string>;
  onTake: (at: string) => void;
}

/** Where no hour that is left fits: the first that does. */
export function EarliestFit({ asked, earliest, onTake }: Props) {
  const format = useFormat();
  const out = useQuery({ queryKey: ["earliest", asked], queryFn: earliest, retry: false }).data;
  if (!out) return null;
  return (
    <button type="button" className="act" onClick={() => onTake(fieldOf(Date.parse(out) + 59_999))}>
      Out by {format.moment(out)}, the earliest that fits
    </button>
  );
}

import { FieldText } from "./FieldText";
import { Author } from "./Author";

interface Props {
  label: string;
  reason: string;
  onReason: (reason: string) => void;
  /** Where else the reason is told to be missing. */
  also?: string;
}

/** Who changes something on record, and why. */
export function Signed({ label, reason, onReason, also }: Props) {
  return (
    <div className="mt-3 flex flex-wrap gap-4">
      <Author />
      <FieldText
        label={label}
        className="min-w-56 flex-1"
        value={reason}
        onChange={onReason}
        field={also ? [also, "signed.reason"] : "signed.reason"}
      />
    </div>
  );
}

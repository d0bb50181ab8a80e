interface Props {
  label: string;
  /** As `2026-11-27`; empty where none is set. */
  value: string;
  onSet: (day: string) => void;
}

/** A day to look for. */
export const DayField = ({ label, value, onSet }: Props) => (
  <label className="text-sm">
    <span className="block text-iron">{label}</span>
    <input
      type="date"
      className="field"
      value={value}
      onChange={(event) => onSet(event.target.value)}
    />
  </label>
);

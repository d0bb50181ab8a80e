import type { Schemas } from "../api/client";

const WIDTH = 240;
const EDGE = 12;
/** A line of initials for each judge. */
const INITIALS = 10;

/** A mark's place on the ruled scale from 1 to 5. */
const placeOf = (mark: number) => EDGE + ((mark - 1) / 4) * (WIDTH - 2 * EDGE);

interface Props {
  label: string;
  /** The judges' marks, small. */
  marks?: readonly { judge: string; mark: number }[];
  /** Theirs as one, large, with how far judging scatters it. */
  joint?: Pick<Schemas["PanelTrait"], "mark" | "low" | "high" | "sign">;
}

/** A characteristic as a ruled scale: the standard at its right end, a signed mark leaning to its side. */
export function ScoreRule({ label, marks = [], joint }: Props) {
  const lean = joint?.sign === "too_little" ? -5 : joint?.sign === "too_much" ? 5 : 0;
  const above = INITIALS * marks.length;
  const line = above + 12;
  const halves = Array.from({ length: 9 }, (_, at) => 1 + at / 2);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${line + 18}`}
      className="block w-60 max-w-full"
      role="img"
      aria-label={label}
    >
      {joint && (
        <rect
          x={placeOf(joint.low)}
          width={Math.max(1, placeOf(joint.high) - placeOf(joint.low))}
          y={line - 5}
          height="10"
          fill="var(--color-water)"
          opacity="0.25"
        />
      )}
      <line x1={EDGE} x2={WIDTH - EDGE} y1={line} y2={line} stroke="var(--color-iron)" />
      {halves.map((mark) => (
        <line
          key={mark}
          x1={placeOf(mark)}
          x2={placeOf(mark)}
          y1={line}
          y2={line + (Number.isInteger(mark) ? 6 : 3)}
          stroke="var(--color-iron)"
        />
      ))}
      {[1, 3, 5].map((mark) => (
        <text
          key={mark}
          x={placeOf(mark)}
          y={line + 16}
          fontSize="10"
          textAnchor="middle"
          fill="var(--color-iron)"
        >
          {mark}
        </text>
      ))}
      {marks.map(({ judge, mark }, at) => (
        <text
          key={judge}
          x={placeOf(mark)}
          y={INITIALS * (at + 1) - 1}
          fontSize="10"
          textAnchor="middle"
          fill="var(--color-ink)"
        >
          {initials(judge)}
        </text>
      ))}
      {joint && (
        <line
          x1={placeOf(joint.mark)}
          x2={placeOf(joint.mark) + lean}
          y1={line + 7}
          y2={line - 9}
          stroke="var(--color-ink)"
          strokeWidth="3"
        />
      )}
    </svg>
  );
}

const initials = (name: string) =>
  name
    .split(/\s+/)
    .map((word) => word[0] ?? "")
    .join("")
    .slice(0, 2);

/** A mark of an axis: how far along it stands, and what it says. */
interface Mark {
  at: number;
  word: string;
}

interface Props {
  marks: readonly Mark[];
  /** Along the foot, its words this far down; or up the left, its words ending this far in. */
  foot?: number;
  left?: number;
  /** From where to where each mark of the left rules a hairline across. */
  across?: readonly [number, number];
}

/** The marks of a scale, about so many. */
export const marksOf = <T,>(
  scale: { (value: T): number; ticks: (many: number) => T[] },
  many: number,
  word: (tick: T) => string,
): Mark[] => scale.ticks(many).map((tick) => ({ at: scale(tick), word: word(tick) }));

/** What an axis of a figure says. */
export function ChartAxis({ marks, foot, left = 0, across }: Props) {
  return (
    <g fontSize="12" fill="var(--color-iron)">
      {marks.map(({ at, word }) =>
        foot === undefined ? (
          <g key={at}>
            {across && (
              <line x1={across[0]} x2={across[1]} y1={at} y2={at} stroke="var(--color-hair)" />
            )}
            <text x={left} y={at + 4} textAnchor="end">
              {word}
            </text>
          </g>
        ) : (
          <text key={at} x={at} y={foot} textAnchor="middle">
            {word}
          </text>
        ),
      )}
    </g>
  );
}

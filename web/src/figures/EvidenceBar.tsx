const HALF = 40;
/** As much as all evidence of a cause may say, ln 50. */
const MOST = Math.log(50);

/** How far evidence speaks for a cause, to the right, or against it, to the left. */
export function EvidenceBar({ log }: { log: number }) {
  const width = (HALF * Math.min(Math.abs(log), MOST)) / MOST;
  const speaks = Math.abs(log) < 0.05 ? "says nothing" : log > 0 ? "for it" : "against it";
  return (
    <svg
      viewBox={`0 0 ${2 * HALF} 10`}
      className="inline-block h-2.5 w-20 shrink-0 self-center"
      role="img"
      aria-label={`evidence ${speaks}`}
    >
      <rect
        x={log > 0 ? HALF : HALF - width}
        y="1"
        width={width}
        height="8"
        fill={log > 0 ? "var(--color-crust)" : "var(--color-water)"}
      />
      <line x1={HALF} x2={HALF} y1="0" y2="10" stroke="var(--color-ink)" strokeWidth="1" />
    </svg>
  );
}

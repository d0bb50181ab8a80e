interface Props {
  id: string;
  /** From one stroke to the next, and how thick each is. */
  every: number;
  stroke: number;
  colour: string;
}

/** The hatching of a fringe. */
export const Hatch = ({ id, every, stroke, colour }: Props) => (
  <pattern
    id={id}
    width={every}
    height={every}
    patternUnits="userSpaceOnUse"
    patternTransform="rotate(45)"
  >
    <rect width={every} height={every} fill="var(--color-sheet)" />
    <rect width={stroke} height={every} fill={colour} opacity="0.65" />
  </pattern>
);

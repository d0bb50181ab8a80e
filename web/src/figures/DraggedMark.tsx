import type { ScaleLinear } from "d3-scale";
import { useRef, type KeyboardEvent, type PointerEvent, type ReactNode } from "react";

/** A mark moves by this much with an arrow key, in minutes. */
const STEP_MIN = 0.1;

interface Props {
  /** What a screen reader says of it. */
  label: string;
  minute: number;
  /** The last minute it can stand at. */
  end: number;
  /** From minutes to the figure's own width. */
  x: ScaleLinear<number, number>;
  width: number;
  /** Left out where it cannot be moved. */
  onMove?: ((minute: number) => void) | undefined;
  children: ReactNode;
}

/** A mark on a figure's time axis that is dragged, or moved by arrows. */
export function DraggedMark({ label, minute, end, x, width, onMove, children }: Props) {
  const dragged = useRef<number | null>(null);
  const within = (at: number) => Math.min(end, Math.max(0, Math.round(at * 100) / 100));
  const minuteAt = (event: PointerEvent<SVGGElement>) => {
    const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
    return box ? within(x.invert(((event.clientX - box.left) / box.width) * width)) : minute;
  };
  if (!onMove) return <g>{children}</g>;
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={Number(end.toFixed(2))}
      aria-valuenow={Number(minute.toFixed(2))}
      className="cursor-ew-resize"
      onKeyDown={(event: KeyboardEvent) => {
        const by = { ArrowLeft: -STEP_MIN, ArrowRight: STEP_MIN }[event.key];
        if (by === undefined) return;
        event.preventDefault();
        onMove(within(minute + by));
      }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        dragged.current = minute;
      }}
      onPointerMove={(event) => {
        if (dragged.current === null) return;
        dragged.current = minuteAt(event);
        event.currentTarget.setAttribute(
          "transform",
          `translate(${x(dragged.current) - x(minute)} 0)`,
        );
      }}
      onPointerUp={(event) => {
        event.currentTarget.removeAttribute("transform");
        const to = dragged.current;
        dragged.current = null;
        if (to !== null && Math.abs(to - minute) > 0.01) onMove(to);
      }}
    >
      {children}
    </g>
  );
}

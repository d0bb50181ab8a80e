import { useId, type ReactNode } from "react";
import { useFault } from "./Faults";

/** How a field is named and what is said of it, whatever it is made of. */
export interface Named {
  label: string;
  /** Above it, before it on the same line, or heard only. */
  place?: "above" | "beside" | "hidden";
  /** What the server calls it: what it refuses of it stands beneath it. */
  field?: string | readonly string[];
  /** What is wrong with it, where that is known otherwise. */
  fault?: string | undefined;
  hint?: ReactNode;
  className?: string | undefined;
}

interface Props extends Named {
  children: (field: {
    id: string;
    "aria-invalid": true | undefined;
    "aria-describedby": string | undefined;
  }) => ReactNode;
}

const LABELS = {
  above: "block text-sm text-iron",
  beside: "font-normal text-iron",
  hidden: "sr-only",
} as const;

/** A field under its label, with what is wrong or what helps beneath it. */
export function Labelled({
  label,
  place = "above",
  field,
  fault,
  hint,
  className,
  children,
}: Props) {
  const id = useId();
  const refused = useFault(field);
  const message = fault ?? refused;
  const says = message ?? hint;
  const Box = place === "above" ? "div" : "span";
  return (
    <Box className={className}>
      <label id={`${id}-label`} htmlFor={id} className={LABELS[place]}>
        {label}
        {place === "beside" && " "}
      </label>
      {children({
        id,
        "aria-invalid": message ? true : undefined,
        "aria-describedby": says ? `${id}-says` : undefined,
      })}
      {says && (
        <span
          id={`${id}-says`}
          className={`mt-1 block text-sm ${message ? "text-stop" : "text-iron"}`}
        >
          {says}
        </span>
      )}
    </Box>
  );
}

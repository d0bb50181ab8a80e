import type { ReactNode } from "react";
import { Faults } from "./Faults";

interface Props {
  /** What was refused of it, or why it could not be sent. */
  error?: unknown;
  onSubmit: () => void;
  label?: string;
  className?: string;
  children: ReactNode;
}

/** What is recorded, asked or edited together; what the server refuses of it stands at its fields. */
export function Form({ error, onSubmit, label, className, children }: Props) {
  return (
    <form
      aria-label={label}
      className={className}
      onSubmit={(event) => {
        event.preventDefault();
        onSubmit();
      }}
    >
      <Faults error={error}>{children}</Faults>
    </form>
  );
}

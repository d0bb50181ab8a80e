import type { ReactNode } from "react";

/** What becomes of a chosen file: it is being read, or why it cannot be. */
export type FileState = { reading: string } | { refused: string };

interface Props {
  state: FileState | undefined;
  className?: string;
  /** What can be done about a refusal. */
  children?: ReactNode;
}

/** Says that a file is being read, quietly, and loudly why it could not be. */
export function FileSays({ state, className = "mt-2", children }: Props) {
  if (!state) return null;
  if ("reading" in state)
    return (
      <p role="status" className={`${className} text-iron`}>
        Reading {state.reading} …
      </p>
    );
  return (
    <div role="alert" className={className}>
      <p className="text-stop">{state.refused}.</p>
      {children}
    </div>
  );
}

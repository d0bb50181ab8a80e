import { Refused } from "../api/client";
import { useFormat } from "../units/format";

interface Props {
  error: unknown;
  /** Whether a field's fault stands beside it already. */
  placed?: (field: string) => boolean;
}

/** What the server refused, in its words, but for what stands at its field; nothing where it did not. */
export function Refusal({ error, placed }: Props) {
  const format = useFormat();
  if (!error) return null;
  const message = error instanceof Refused ? inWords(error, placed) : NO_ANSWER;
  if (!message) return null;
  return (
    <p className="mt-2 text-stop" role="alert">
      {format.text(message)}
      {!/[.?!]$/.test(message) && "."}
    </p>
  );
}

const NO_ANSWER = "The server does not answer; try again in a moment";

function inWords({ problem, message }: Refused, placed: Props["placed"]): string {
  if (!problem.errors) return message;
  const left = problem.errors.filter((one) => !placed?.(one.field));
  return left.map((one) => one.message).join(". ");
}

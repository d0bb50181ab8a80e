import { Refused } from "../api/client";

/** What the server refused, in its words; nothing where it did not. */
export function Refusal({ error }: { error: unknown }) {
  if (!error) return null;
  const says =
    error instanceof Refused
      ? (error.problem.errors?.map((one) => one.message).join(". ") ?? error.message)
      : "The server does not answer; try again in a moment";
  return (
    <p className="mt-2 text-stop" role="alert">
      {says}.
    </p>
  );
}

import { useState } from "react";
import { asProblem, Refused } from "../api/client";
import { Refusal } from "../form/Refusal";

interface Props {
  label?: string;
  path: string;
  body: unknown;
}

/** A plan as a calendar file, with a reminder before each stage that needs somebody. */
export function CalendarButton({ label = "Save as a calendar", path, body }: Props) {
  const [error, fail] = useState<unknown>();
  const save = async () => {
    const response = await fetch(path, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify(body),
    }).catch(() => undefined);
    if (!response?.ok) {
      const told: unknown = await response?.json().catch(() => undefined);
      return fail(response ? new Refused(asProblem(told, response.status)) : "no answer");
    }
    fail(undefined);
    const link = document.createElement("a");
    link.href = URL.createObjectURL(await response.blob());
    link.download = "dough.ics";
    link.click();
    URL.revokeObjectURL(link.href);
  };
  return (
    <>
      <button type="button" className="act" onClick={() => void save()}>
        {label}
      </button>
      <Refusal error={error} />
    </>
  );
}

import { useState } from "react";

/** A plan as a calendar file, with a reminder before each stage that needs somebody. */
export function CalendarButton({ path, body }: { path: string; body: unknown }) {
  const [failed, fail] = useState(false);
  const save = async () => {
    const response = await fetch(path, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify(body),
    }).catch(() => null);
    fail(!response?.ok);
    if (!response?.ok) return;
    const link = document.createElement("a");
    link.href = URL.createObjectURL(await response.blob());
    link.download = "dough.ics";
    link.click();
    URL.revokeObjectURL(link.href);
  };
  return (
    <>
      <button type="button" className="act" onClick={() => void save()}>
        Save as a calendar
      </button>
      {failed && <span className="text-stop">The calendar could not be had; try again.</span>}
    </>
  );
}

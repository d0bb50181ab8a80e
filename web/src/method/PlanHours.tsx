import type { Refused } from "../api/client";
import { DateTimeField } from "../form/DateTimeField";
import type { ScheduleQuery } from "./schedule";
import { Select } from "../form/Select";

interface Props {
  day: ScheduleQuery;
  set: (change: Partial<ScheduleQuery> | ((now: ScheduleQuery) => Partial<ScheduleQuery>)) => void;
  refused: Refused | undefined;
}

interface WhenProps {
  day: ScheduleQuery;
  set: (change: Partial<ScheduleQuery>) => void;
}

/** When it is wanted. */
export function WhenAsked({ day, set }: WhenProps) {
  return (
    <div className="flex items-end gap-3">
      <Select
        label="Plan"
        name="Plan by"
        value={day.by}
        options={[
          ["out_by", "out of the oven by"],
          ["from", "beginning not before"],
        ]}
        onSet={(by) => set({ by })}
      />
      <DateTimeField label="When" value={day.at} onSet={(at) => set({ at })} />
    </div>
  );
}

/** The closed hours. */
export function ClosedHours({ day, set, refused }: Props) {
  const setHours = (at: number, change: Partial<ScheduleQuery["closed_hours"][number]>) =>
    set(({ closed_hours }) => ({
      closed_hours: closed_hours.map((one, i) => (i === at ? { ...one, ...change } : one)),
    }));
  return (
    <fieldset className="text-sm">
      <legend className="text-iron">Closed hours</legend>
      {day.closed_hours.map((hours, at) => (
        <div key={at} className="flex items-center gap-2">
          {(["from", "to"] as const).map((end) => (
            <label key={end} className="flex items-center gap-2">
              {end}
              <input
                aria-label={`Closed hours, ${end}, ${at + 1}`}
                className="field w-16"
                value={hours[end]}
                aria-invalid={refused?.at(`day.closed_hours[${at}].${end}`) ? true : undefined}
                onChange={(event) => setHours(at, { [end]: event.target.value })}
              />
            </label>
          ))}
          <button
            type="button"
            className="px-1 text-lg text-iron hover:text-stop"
            aria-label={`Remove closed hours, ${at + 1}`}
            onClick={() =>
              set(({ closed_hours }) => ({ closed_hours: closed_hours.filter((_, i) => i !== at) }))
            }
          >
            ×
          </button>
        </div>
      ))}
      <button
        type="button"
        className="link"
        onClick={() =>
          set(({ closed_hours }) => ({
            closed_hours: [...closed_hours, { from: "12:00", to: "13:00" }],
          }))
        }
      >
        More hours
      </button>
    </fieldset>
  );
}

import { NumberField } from "../form/NumberField";
import { optionsOf, Select } from "../form/Select";
import { AIDS } from "./programme";
import type { StageInput } from "./method";

type Phase = NonNullable<StageInput["programme"]>[number];

interface Props {
  phases: Phase[];
  /** How long the bake is, and what is around it, where no phase is stated. */
  minutes: number;
  celsius: number | undefined;
  fault: (field: string) => string | undefined;
  /** The phases, and how long the bake is with them. */
  onChange: (change: Partial<StageInput>) => void;
}

const MARKS = [
  ["damper_open", "damper open"],
  ["lid", "lid on"],
  ["tin_out", "out of the tin"],
] as const;

/** What the oven does in a bake, phase after phase; the bake is as long as they are. */
export function BakeProgramme({ phases, minutes, celsius, fault, onChange }: Props) {
  const put = (programme: Phase[]) =>
    onChange({
      programme,
      ...(programme.length > 0 && {
        minutes: programme.reduce((all, phase) => all + (phase.minutes ?? 0), 0),
      }),
    });
  const set = (place: number, change: Partial<Phase>) =>
    put(phases.map((one, at) => (at === place ? { ...one, ...change } : one)));
  const last = phases.at(-1);
  const next: Phase = last
    ? { minutes: 5, top_c: last.top_c, bottom_c: last.bottom_c, damper_open: true }
    : { minutes, top_c: celsius ?? 220, damper_open: false };
  return (
    <fieldset className="mt-3 border-t border-hair pt-2">
      <legend className="float-left text-sm text-iron">Bake programme</legend>
      <div className="clear-both space-y-2">
        {phases.map((phase, place) => {
          const at = (field: string) => fault(`programme[${place}].${field}`);
          return (
            <div
              key={place}
              className="flex flex-wrap items-start gap-x-3 gap-y-2 border-t border-hair pt-1 first:border-t-0"
            >
              <NumberField
                label={`Phase ${place + 1}`}
                className="w-24"
                kind="duration"
                value={phase.minutes ?? null}
                onSet={(value) => set(place, { minutes: value ?? 0 })}
                fault={at("minutes")}
              />
              <NumberField
                label="Top heat"
                className="w-24"
                kind="temperature"
                value={phase.top_c ?? null}
                onSet={(value) => set(place, { top_c: value ?? 0 })}
                fault={at("top_c")}
              />
              <NumberField
                label="Bottom heat"
                className="w-24"
                kind="temperature"
                value={phase.bottom_c ?? null}
                hint={phase.bottom_c == null ? "as the top" : undefined}
                onSet={(value) => set(place, { bottom_c: value ?? undefined })}
                fault={at("bottom_c")}
              />
              <NumberField
                label="Steam, s"
                className="w-20"
                kind="number"
                value={phase.steam_s ?? null}
                hint={phase.steam_s == null ? "none" : undefined}
                onSet={(value) =>
                  set(place, {
                    steam_s: value ?? undefined,
                    ...(value === null && { steam_until_core_c: undefined }),
                  })
                }
                fault={at("steam_s")}
              />
              {phase.steam_s != null && (
                <NumberField
                  label="Steam off at a core of"
                  className="w-40"
                  kind="temperature"
                  value={phase.steam_until_core_c ?? null}
                  hint={phase.steam_until_core_c == null ? "with the phase" : undefined}
                  onSet={(value) => set(place, { steam_until_core_c: value ?? undefined })}
                  fault={at("steam_until_core_c")}
                />
              )}
              <Select
                label="With"
                className="w-48"
                value={phase.aid ?? ""}
                options={[["", "nothing more"], ...optionsOf(AIDS)]}
                onSet={(aid) => set(place, { aid: aid || undefined })}
              />
              <div className="flex w-full flex-wrap items-center gap-x-4">
                {MARKS.map(([mark, word]) => (
                  <label key={mark} className="flex items-center gap-2">
                    <input
                      type="checkbox"
                      checked={phase[mark] ?? false}
                      onChange={(event) => set(place, { [mark]: event.target.checked })}
                    />
                    {word}
                  </label>
                ))}
                {at("tin_out") && <p className="text-sm text-stop">{at("tin_out")}.</p>}
                <button
                  type="button"
                  className="link"
                  onClick={() => put(phases.toSpliced(place, 1))}
                >
                  Take out<span className="sr-only"> phase {place + 1}</span>
                </button>
              </div>
            </div>
          );
        })}
        <button type="button" className="act" onClick={() => put([...phases, next])}>
          Add a phase
        </button>
        {fault("programme") && (
          <p className="text-sm text-stop" role="alert">
            {fault("programme")}.
          </p>
        )}
      </div>
    </fieldset>
  );
}

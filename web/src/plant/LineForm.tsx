import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { record } from "../api/outbox";
import { FieldText } from "../form/FieldText";
import { Signed } from "../form/Signed";
import { useKept } from "../storage/useKept";
import { useFormat } from "../units/format";
import type { Kind } from "../units/parse";
import { NumberField } from "../form/NumberField";
import { Select } from "../form/Select";
import { Faults } from "../form/Faults";

type LineDraft = Omit<Schemas["LineSaved"], "number" | "signed">;
type Field = Exclude<keyof LineDraft, "name" | "mixer_name" | "mixer_kind">;

const FIELDS: readonly (readonly [Field, string, Kind])[] = [
  ["min_kg", "Mixes at least", "mass"],
  ["max_kg", "Holds at most", "mass"],
  ["slow_kj_per_kg_min", "Slow, kJ/kg a minute", "number"],
  ["fast_kj_per_kg_min", "Fast, kJ/kg a minute", "number"],
  ["jacket_kj_per_kg_min", "Jacket takes, kJ/kg a minute", "number"],
  ["chilled_c", "Chiller gives", "temperature"],
  ["refrigerator_c", "Refrigerator at", "temperature"],
  ["hot_c", "Hot tap gives", "temperature"],
  ["max_ice_pct", "Ice at most, of the water", "percent"],
  ["turn_min", "Batch interval, min", "number"],
  ["troughs", "Troughs", "number"],
  ["trough_kg", "Dough in a trough", "mass"],
  ["trough_m2", "Floor a trough takes, m²", "number"],
  ["divider_per_min", "Divider, pieces a minute", "number"],
  ["proofer_pieces", "Proofer holds, pieces", "number"],
  ["oven_pieces", "Oven holds, pieces", "number"],
  ["division_kg", "Scale shows, steps of", "mass"],
  ["tap_c", "Tap water, usually", "temperature"],
  ["flour_c", "Flour, usually", "temperature"],
  ["room_c", "Room, usually", "temperature"],
];

/** Empty where the line has none. */
const OPTIONAL = new Set<Field>([
  "jacket_kj_per_kg_min",
  "chilled_c",
  "refrigerator_c",
  "hot_c",
  "max_ice_pct",
]);

interface Typing {
  draft: LineDraft;
  reason: string;
}

const begin = (kept?: Partial<Typing>): Typing => ({ draft: {}, reason: "", ...kept });

interface LineFormProps {
  /** None where a line is made from nothing. */
  line?: Schemas["LineView"];
  kinds: readonly Schemas["MixerKind"][];
  onSaved?: (line: Schemas["LineView"]) => void;
}

/** The line's figures as they are; none of a line that is made. */
function figures(line?: Schemas["ScenarioLine"]): Partial<Record<Field, number>> {
  if (!line) return {};
  const { mixer, equipment, water } = line;
  return {
    min_kg: mixer.min_kg,
    max_kg: mixer.max_kg,
    slow_kj_per_kg_min: mixer.slow_kj_per_kg_min,
    fast_kj_per_kg_min: mixer.fast_kj_per_kg_min,
    jacket_kj_per_kg_min: mixer.jacket_kj_per_kg_min ?? 0,
    ...equipment,
    chilled_c: water.chilled_c ?? 0,
    refrigerator_c: water.refrigerator_c ?? 0,
    hot_c: water.hot_c ?? 0,
    max_ice_pct: water.max_ice_pct,
    division_kg: line.division_kg,
    tap_c: line.tap_c,
    flour_c: line.flour_c,
    room_c: line.room_c,
  };
}

/** A line's figures, to be changed with a reason, or to be stated of a new one. */
export function LineForm({ line, kinds, onSaved }: LineFormProps) {
  const queries = useQueryClient();
  const key = `ironpeel.line.${line?.id ?? "new"}`;
  const [typing, type, forget] = useKept(key, begin);
  const { draft, reason } = typing;
  const setDraft = (change: Partial<LineDraft>) =>
    type((now) => ({ draft: { ...now.draft, ...change } }));
  const was = figures(line);
  const next = (line?.revision.number ?? 0) + 1;
  const save = useMutation({
    networkMode: "always",
    mutationFn: async () => {
      const body: Schemas["LineSaved"] = {
        ...draft,
        number: next,
        signed: { reason },
      };
      const saved = await record<Schemas["LineView"]>({
        path: `/api/v1/lines/${line?.id ?? crypto.randomUUID()}/revisions/${crypto.randomUUID()}`,
        subject: key,
        label: line ? `${line.name}, revision ${next}` : `the line ${draft.name ?? ""}`,
        body,
        draft: { key, as: typing },
      });
      forget(typing);
      await queries.invalidateQueries({ queryKey: ["lines"] });
      await queries.invalidateQueries({ queryKey: ["product"] });
      onSaved?.(saved);
    },
  });
  const format = useFormat();
  const kind = draft.mixer_kind ?? line?.mixer.kind ?? "";
  const usual = kinds.find((one) => one.kind === kind);
  const band = (of: Schemas["Estimate"] | undefined) =>
    of && `usual of a ${kind} one ${format.plain(of.low)} to ${format.plain(of.high)}`;
  const hints: Partial<Record<Field, string | undefined>> = {
    slow_kj_per_kg_min: band(usual?.slow),
    fast_kj_per_kg_min: band(usual?.fast),
  };
  const templates = useQuery({
    queryKey: ["line templates"],
    queryFn: () => answer(api.GET("/api/v1/line-templates")),
    enabled: !line,
  }).data;
  const beginFrom = ({ name, line }: Schemas["LineTemplate"]) =>
    type({
      draft: {
        name,
        mixer_name: line.mixer.name,
        mixer_kind: line.mixer.kind,
        ...figures(line),
      },
      reason: "",
    });
  const edited = Object.values(draft).some((value) => value !== undefined);
  return (
    <section aria-label="The line's figures">
      <Faults error={save.error}>
        {line ? (
          <>
            <h2>The line, revision {line.revision.number}</h2>
            <p className="text-sm text-iron">
              {line.revision.made_by}: {line.revision.reason}
            </p>
          </>
        ) : (
          <>
            <h2>A new line</h2>
            <p className="text-sm text-iron">
              Begin with what is usual of such a place, and put right what differs at yours.
            </p>
            <ul className="mt-2 grid gap-2 sm:grid-cols-2">
              {templates?.map((one) => (
                <li key={one.name}>
                  <button
                    type="button"
                    className="act h-full w-full text-left"
                    onClick={() => beginFrom(one)}
                  >
                    <b className="block">{one.name}</b>
                    <span className="text-sm font-normal text-iron">{one.about}</span>
                  </button>
                </li>
              ))}
            </ul>
            <FieldText
              label="Name of the line"
              className="mt-2 block max-w-72"
              value={draft.name ?? ""}
              onChange={(name) => setDraft({ name })}
              field="name"
            />
          </>
        )}
        <div className="mt-2 grid grid-cols-2 gap-x-6 gap-y-3 sm:grid-cols-3">
          <FieldText
            label="The mixer"
            value={draft.mixer_name ?? line?.mixer.name ?? ""}
            onChange={(mixer_name) => setDraft({ mixer_name })}
            field="mixer_name"
          />
          <Select
            label="Its kind"
            value={kind}
            options={[...new Set([kind, ...kinds.map((one) => one.kind)])].map((one) => [one, one])}
            onSet={(mixer_kind) => setDraft({ mixer_kind })}
          />
          {FIELDS.map(([key, label, kind]) => (
            <NumberField
              key={key}
              label={label}
              kind={kind}
              // What a line may be without is empty where it is, and 0 on the wire.
              value={(draft[key] ?? was[key]) || (OPTIONAL.has(key) || !line ? null : 0)}
              onSet={(typed) => {
                const value = typed ?? (OPTIONAL.has(key) ? 0 : undefined);
                setDraft({ [key]: value === was[key] ? undefined : value });
              }}
              field={key}
              hint={
                hints[key] ??
                (OPTIONAL.has(key) && !(draft[key] ?? was[key]) ? "there is none" : undefined)
              }
            />
          ))}
        </div>
        {edited && (
          <div className="mt-3 border-l-4 border-ink bg-faint p-3">
            <p className="text-sm">
              {line
                ? "A change is the line's next revision: it holds for every product made on it."
                : "What is not stated is asked for; what a line may be without may stay empty."}
            </p>
            <Signed label="Why" reason={reason} onReason={(reason) => type({ reason })} />
            <p className="mt-3 flex gap-3">
              <button
                type="button"
                className="act act-main"
                disabled={save.isPending}
                onClick={() => save.mutate()}
              >
                {line ? `Save revision ${next}` : "Save the line"}
              </button>
              <button type="button" className="act" onClick={() => forget()}>
                Discard
              </button>
            </p>
          </div>
        )}
      </Faults>
    </section>
  );
}

import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Refused, type Schemas } from "../api/client";
import { record } from "../api/outbox";
import { FieldText } from "../shell/FieldText";
import { EmptyState } from "../shell/EmptyState";
import { Refusal } from "../shell/Refusal";
import { Signed } from "../shell/Signed";
import { useScenarioContext } from "../shell/useScenarioContext";
import { useKept } from "../storage/useKept";
import { useFormat } from "../units/format";
import { usePreferences } from "../units/preferences";
import type { Kind } from "../units/parse";
import { Quantity } from "../units/Quantity";
import { MethodTabs } from "./MethodTabs";
import { useGuide } from "./useMethod";

type LineDraft = Schemas["LineDraft"];
type Field = Exclude<keyof LineDraft, "mixer_name" | "mixer_kind">;

/** The line's mixer and what it gives the dough, and what comes after it. */
export function LinePage() {
  const { product, chain } = useScenarioContext();
  const guide = useGuide();
  const format = useFormat();
  if (!product || !chain || !guide)
    return (
      <>
        <MethodTabs />
        <EmptyState link="method" />
      </>
    );
  const { mixer } = product.line;
  return (
    <>
      <MethodTabs />
      <div className="flex flex-wrap items-end gap-x-10 gap-y-3">
        <div>
          <h1>{product.line.name}</h1>
          <p className="text-sm text-iron">
            {mixer.name}, {mixer.kind}, {format.mass(mixer.min_kg, 1)} to{" "}
            {format.mass(mixer.max_kg, 1)} of dough
          </p>
        </div>
        <p>
          <span className="figure text-4xl">
            {format.number(chain.method.mixing_kj_per_kg)} kJ/kg
          </span>
          <span className="block text-sm">
            {CLASSES[guide.mixing_class]} mixing in {format.minutes(chain.method.mixing_min)}
          </span>
        </p>
      </div>
      <div className="mt-6 grid gap-x-12 gap-y-8 lg:grid-cols-2">
        <div className="space-y-7">
          <Developments guide={guide} mixes={chain.method.mixing_kj_per_kg} />
          <Power guide={guide} mixer={mixer} mixes={chain.method.mixing_kj_per_kg} />
          <p className="text-sm">
            Guards shut; isolate and lock out before hands go in. The maker's limits of mass and
            time go before these.
          </p>
        </div>
        <LineForm
          key={product.line.revision.id}
          line={product.line}
          slug={product.slug}
          kinds={guide.mixer_kinds}
        />
      </div>
    </>
  );
}

const CLASSES = {
  hand_folds: "hand folds",
  short: "short",
  improved: "improved",
  intensive: "intensive",
} as const satisfies Record<Schemas["MixingClass"], string>;

/** What each class of mixing takes on this mixer. */
function Developments({ guide, mixes }: { guide: Schemas["MethodGuide"]; mixes: number }) {
  const format = useFormat();
  const band = (of: Schemas["Estimate"], decimals: number) =>
    `${format.number(of.low, decimals)} to ${format.number(of.high, decimals)}`;
  return (
    <section aria-labelledby="development">
      <h2 id="development">Energy to development</h2>
      <table className="mt-1 w-full">
        <thead>
          <tr className="border-b border-ink">
            {["mixing", "kJ/kg", "minutes fast", "warms it by"].map((word, at) => (
              <th scope="col" key={word} className={at === 0 ? "py-1" : "text-right"}>
                {word}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {guide.developments.map((one) => (
            <tr
              key={one.class}
              className={`border-b border-hair ${one.class === guide.mixing_class ? "bg-faint font-semibold" : ""}`}
            >
              <th scope="row" className="py-1 text-base font-[inherit] text-ink">
                {CLASSES[one.class]}
                {one.class === guide.mixing_class && (
                  <span className="text-sm text-iron">, this method: {format.number(mixes)}</span>
                )}
              </th>
              <td className="text-right">{band(one.kj_per_kg, 0)}</td>
              <td className="text-right">{one.fast_min ? band(one.fast_min, 1) : "–"}</td>
              <td className="text-right">
                {format.apart(one.warms_c.low)} to {format.apart(one.warms_c.high)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-sm text-iron">
        After the method's slow minutes. House defaults; the dough says when it is developed, and
        the same dough has taken very different minutes.
      </p>
    </section>
  );
}

interface PowerProps {
  guide: Schemas["MethodGuide"];
  mixer: Schemas["Mixer"];
  mixes: number;
}

/** What measured doughs say of the mixer's power. */
function Power({ guide, mixer, mixes }: PowerProps) {
  const format = useFormat();
  const measured = guide.friction_factor?.measured_kj_per_kg;
  return (
    <section aria-labelledby="power">
      <h2 id="power">Measured mixer energy</h2>
      {measured == null ? (
        <p className="mt-1 text-sm text-iron">
          No dough of this method was measured on this line yet. Record flour, room, water and dough
          under Heat, and the mixer's power is learned from them.
        </p>
      ) : (
        <p className="mt-1">
          {format.count(guide.measured.length, "measured dough gives", "measured doughs give")}{" "}
          <b className="figure">{format.number(measured)} kJ/kg</b> for this mixing; the line's
          figures say <b className="figure">{format.number(mixes)}</b>.{" "}
          {mixes > 0 && Math.abs(measured / mixes - 1) > 0.05 && (
            <>
              They would agree at {format.number((mixer.slow_kj_per_kg_min * measured) / mixes, 2)}{" "}
              slow and {format.number((mixer.fast_kj_per_kg_min * measured) / mixes, 2)} kJ/kg a
              minute fast.
            </>
          )}
        </p>
      )}
    </section>
  );
}

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
  line: Schemas["LineView"];
  slug: string;
  kinds: Schemas["MixerKind"][];
}

/** The line's figures, to be changed with a reason. */
function LineForm({ line, slug, kinds }: LineFormProps) {
  const queries = useQueryClient();
  const { preferences } = usePreferences();
  const key = `ironpeel.line.${line.id}`;
  const [typing, type, forget] = useKept(key, begin);
  const { draft, reason } = typing;
  const setDraft = (change: Partial<LineDraft>) =>
    type((now) => ({ draft: { ...now.draft, ...change } }));
  const { mixer, equipment } = line;
  const was: Record<Field, number> = {
    min_kg: mixer.min_kg,
    max_kg: mixer.max_kg,
    slow_kj_per_kg_min: mixer.slow_kj_per_kg_min,
    fast_kj_per_kg_min: mixer.fast_kj_per_kg_min,
    jacket_kj_per_kg_min: mixer.jacket_kj_per_kg_min ?? 0,
    ...equipment,
    chilled_c: line.water.chilled_c ?? 0,
    refrigerator_c: line.water.refrigerator_c ?? 0,
    hot_c: line.water.hot_c ?? 0,
    max_ice_pct: line.water.max_ice_pct,
  };
  const save = useMutation({
    networkMode: "always",
    mutationFn: async () => {
      const body: Schemas["LineSaved"] = {
        ...draft,
        number: line.revision.number + 1,
        signed: { by: preferences.name, reason },
      };
      await record<Schemas["LineView"]>({
        path: `/api/v1/lines/${line.id}/revisions/${crypto.randomUUID()}`,
        subject: key,
        label: `${line.name}, revision ${line.revision.number + 1}`,
        body,
        draft: { key, as: typing },
      });
      forget(typing);
      await queries.invalidateQueries({ queryKey: ["product", slug] });
    },
  });
  const refused = save.error instanceof Refused ? save.error : undefined;
  const format = useFormat();
  const kind = draft.mixer_kind ?? mixer.kind;
  const usual = kinds.find((one) => one.kind === kind);
  const band = (of: Schemas["Estimate"] | undefined) =>
    of && `usual of a ${kind} one ${format.plain(of.low)} to ${format.plain(of.high)}`;
  const hints: Partial<Record<Field, string | undefined>> = {
    slow_kj_per_kg_min: band(usual?.slow),
    fast_kj_per_kg_min: band(usual?.fast),
  };
  const edited = Object.values(draft).some((value) => value !== undefined);
  return (
    <section aria-label="The line's figures">
      <h2>The line, revision {line.revision.number}</h2>
      <p className="text-sm text-iron">
        {line.revision.made_by}: {line.revision.reason}
      </p>
      <div className="mt-2 grid grid-cols-2 gap-x-6 gap-y-3 sm:grid-cols-3">
        <FieldText
          label="The mixer"
          value={draft.mixer_name ?? mixer.name}
          onChange={(mixer_name) => setDraft({ mixer_name })}
          fault={refused?.at("mixer_name")}
        />
        <label className="text-sm text-iron">
          Its kind
          <select
            className="field text-ink"
            value={kind}
            onChange={(event) => setDraft({ mixer_kind: event.target.value })}
          >
            {[...new Set([mixer.kind, ...kinds.map((one) => one.kind)])].map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        </label>
        {FIELDS.map(([key, label, kind]) => (
          <Quantity
            key={key}
            label={label}
            kind={kind}
            // What a line may be without is empty where it is, and 0 on the wire.
            value={(draft[key] ?? was[key]) || (OPTIONAL.has(key) ? null : 0)}
            onSet={(typed) => {
              const value = typed ?? (OPTIONAL.has(key) ? 0 : undefined);
              setDraft({ [key]: value === was[key] ? undefined : value });
            }}
            fault={refused?.at(key)}
            hint={
              hints[key] ??
              (OPTIONAL.has(key) && !(draft[key] ?? was[key]) ? "there is none" : undefined)
            }
          />
        ))}
      </div>
      {edited && (
        <form
          className="mt-3 border-l-4 border-ink bg-faint p-3"
          onSubmit={(event) => {
            event.preventDefault();
            save.mutate();
          }}
        >
          <p className="text-sm">
            A change is the line's next revision: it holds for every product made on it.
          </p>
          <Signed
            label="Why"
            reason={reason}
            onReason={(reason) => type({ reason })}
            refused={refused}
          />
          <p className="mt-3 flex gap-3">
            <button type="submit" className="act act-main" disabled={save.isPending}>
              Save revision {line.revision.number + 1}
            </button>
            <button type="button" className="act" onClick={() => forget()}>
              Discard
            </button>
          </p>
        </form>
      )}
      <Refusal error={save.error} placed={/^signed|^mixer_|_kg$|_min$|troughs|_m2$|_pieces$/} />
    </section>
  );
}

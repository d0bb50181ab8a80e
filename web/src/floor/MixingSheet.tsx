import { AddressCode } from "../figures/AddressCode";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { endFigure } from "../method/endsAt";
import { phaseText } from "../method/programme";
import { waterFrom } from "../method/waterFrom";
import { VERDICT } from "../shell/verdict";

interface Props {
  chain: Schemas["Chain"];
  head: {
    product: string;
    line: string;
    process: string;
    lot: string;
    flour: string;
    revisions: string;
    when: string;
    /** Who released its lots, or why they are not. */
    release: string[];
    /** Whether anything is asked of the flour. */
    asked: boolean;
    /** Where the batch is run, for the tablet's camera; none before it is planned. */
    address?: string;
  };
}

/** The sheet the floor works from: fits one A4 page, black on white. */
export function MixingSheet({ chain, head }: Props) {
  const format = useFormat();
  const { sheet, heat, water } = chain;
  if (!sheet || !heat || !water) return null;
  const verdict = VERDICT[chain.flour.verdict];
  return (
    <article
      aria-label="Mixing sheet"
      className="max-w-4xl border border-hair bg-sheet p-6 print:max-w-none print:border-0 print:p-0"
    >
      <header className="flex flex-wrap items-end justify-between gap-x-6 border-b-2 border-ink pb-2">
        <div>
          <h1 className="print:text-2xl">{head.product}</h1>
          <p>
            {head.line} · {head.process}
          </p>
        </div>
        <div className="flex items-end gap-4">
          <div className="text-right">
            <p className="figure text-lg">
              {sheet.doughs === 1 ? "1 dough" : `${sheet.doughs} doughs, each`}{" "}
              {format.mass(sheet.dough_kg, sheet.division_kg)}
            </p>
            <p>{head.when}</p>
          </div>
          {head.address && <AddressCode address={head.address} of="this batch" />}
        </div>
      </header>
      <dl className="grid grid-cols-2 gap-x-6 border-b border-ink py-2 sm:grid-cols-4 print:grid-cols-4">
        <Fact name="Flour lot">
          {head.lot}
          <span className="block text-sm font-normal">
            {head.flour} ·{" "}
            <span className="whitespace-nowrap">
              {head.asked ? `${verdict.mark} ${verdict.word}` : "no specification"}
            </span>
          </span>
        </Fact>
        <Fact name="Water">
          {format.temperature(heat.water_c)}
          <span className="block text-sm font-normal">
            {format.percent(water.floor_pct)} on flour, likely {format.number(water.low_pct)} to{" "}
            {format.number(water.high_pct)}
            {(heat.water_from?.length ?? 0) > 1 &&
              `; ${waterFrom(format, heat.water_from, sheet.division_kg)}`}
          </span>
        </Fact>
        <Fact name="Ice">
          {heat.ice_kg > 0 ? format.mass(iceOf(sheet), sheet.division_kg) : "none"}
        </Fact>
        <Fact name="Dough off the mixer">
          {format.temperature(heat.dough_c)}
          {!heat.reachable && (
            <span className="block text-sm font-normal text-stop">
              wanted {format.temperature(sheet.target_c)}: out of reach
            </span>
          )}
        </Fact>
      </dl>
      {head.release.map((message) => (
        <p key={message} className="border-b border-hair py-1 text-sm print:py-0.5">
          <b>Lot:</b> {message}
        </p>
      ))}
      {[...water.cautions.map((one) => one.says), ...heat.cautions, ...sheet.cautions].map(
        (message) => (
          <p key={message} className="border-b border-hair py-1 text-sm print:py-0.5">
            <b>Caution:</b> {format.text(message)}
          </p>
        ),
      )}
      {sheet.parts.length > 0 && (
        <ul aria-label="Preferments and soakers" className="border-b-2 border-ink">
          {sheet.parts.map((part) => (
            <li
              key={part.name}
              className="grid grid-cols-[minmax(0,1fr)_minmax(0,15rem)] gap-x-4 border-b border-hair py-1.5 last:border-0"
            >
              <div>
                <p>
                  <b>{part.name}</b>, made before, {format.mass(part.kg, sheet.division_kg)}, at{" "}
                  {format.temperature(part.made_c)}
                </p>
                {part.cool_after_min && (
                  <p className="text-sm">
                    below {format.temperature(part.cool_c, 0)} after{" "}
                    {format.about(part.cool_after_min)}
                  </p>
                )}
                {part.caution && <Caution message={part.caution} />}
              </div>
              <Takes takes={part.takes} />
            </li>
          ))}
        </ul>
      )}
      <ol>
        {sheet.steps.map((step, at) => (
          <li
            key={at}
            className="grid grid-cols-[4.5rem_minmax(0,1fr)] gap-x-4 border-b border-hair py-1.5 print:py-0.5 sm:grid-cols-[4.5rem_minmax(0,1fr)_minmax(0,15rem)] print:grid-cols-[4.5rem_minmax(0,1fr)_minmax(0,15rem)]"
          >
            <p className="text-right">
              <span className="figure block text-lg leading-tight">{clock(step.at_min)}</span>
              <span className="text-sm text-iron">{format.minutes(step.minutes)}</span>
            </p>
            <div
              className={
                step.takes.length + step.takes_parts.length === 0
                  ? "sm:col-span-2 print:col-span-2"
                  : undefined
              }
            >
              <p>
                <b>{step.label}</b>
                {step.speed && `, ${step.speed}`}
                {step.temperature_c != null && `, ${format.temperature(step.temperature_c, 0)}`}
                {step.ambient_curve?.map(
                  (point) =>
                    `, ${format.temperature(point.temperature_c, 0)} after ${format.minutes(point.after_min)}`,
                )}
                {step.humidity_pct != null && `, ${format.percent(step.humidity_pct, 0)} humidity`}
                {step.mixing_done_pct != null && step.mixing_done_pct > 0 && (
                  <span className="text-sm text-iron">
                    {" "}
                    at {format.percent(step.mixing_done_pct, 0)} of mixing
                  </span>
                )}
              </p>
              <p className="text-sm print:mr-3 print:inline">
                {step.folds_at_min.length > 0 &&
                  `at ${step.folds_at_min.map(clock).join(", ")}, a rest after each; `}
                until{" "}
                {[
                  format.text(step.ends_when),
                  endFigure(step.ends_at, step.end_figure, format, step.ends_after ?? undefined),
                ]
                  .filter(Boolean)
                  .join(", ")}
                {step.dough_c &&
                  `; the dough is at ${step.dough_c.map((c) => format.temperature(c)).join(", then ")}`}
                {step.ripe_at_min && (
                  <b>
                    , ripe between{" "}
                    {step.ripe_at_min.map((min) => clock(Math.round(min))).join(" and ")}
                  </b>
                )}
              </p>
              {(step.makes_parts.length > 0 || step.programme) && (
                <p className="text-sm print:mr-3 print:inline">
                  {step.makes_parts.map((part) => `weighed above: ${sheet.parts[part]?.name}`)}
                  {step.programme?.map((phase) => phaseText(phase, format)).join("; ")}
                </p>
              )}
              {step.cautions.map((message) => (
                <Caution key={message} message={message} />
              ))}
            </div>
            <div className="col-start-2 empty:hidden sm:col-start-3 print:col-start-3">
              <Takes
                takes={step.takes}
                parts={step.takes_parts.flatMap((part) => sheet.parts[part] ?? [])}
                division={sheet.division_kg}
              />
            </div>
          </li>
        ))}
      </ol>
      {chain.dough && (
        <p className="pt-1 text-sm">
          <b>{chain.dough.allergens.message}</b> {chain.dough.allergens.caution}
        </p>
      )}
      <footer className="mt-2 flex flex-wrap justify-between gap-x-6 text-xs text-iron">
        <p>{head.revisions}</p>
        <p>Local code, the maker's instructions and licensed practice go before this sheet.</p>
      </footer>
      <p className="mt-3 hidden gap-8 text-sm print:flex">
        <span>Dough measured ________ {format.temperature(0).slice(-2)}</span>
        <span>Water added or held ________</span>
        <span>Mixed by ________________</span>
      </p>
    </article>
  );
}

function Caution({ message }: { message: string }) {
  const format = useFormat();
  return (
    <p className="text-sm text-iron print:mr-3 print:inline">
      <b className="text-crust">⚠</b> {format.text(message)}
    </p>
  );
}

interface TakesProps {
  takes: Schemas["ToWeigh"][];
  parts?: Schemas["SheetPart"][];
  division?: number;
}

/** What goes in, the parts made before first. */
function Takes({ takes, parts = [], division = 0 }: TakesProps) {
  const format = useFormat();
  const row = (name: string, mass: string, at: number) => (
    <li key={`${name} ${at}`} className="flex justify-between gap-3 print:leading-tight">
      <span>{name}</span>
      <b className="figure text-lg leading-snug whitespace-nowrap print:text-base print:leading-tight">
        {mass}
      </b>
    </li>
  );
  if (parts.length + takes.length === 0) return null;
  return (
    <ul>
      {parts.map((part, at) => row(part.name, format.mass(part.kg, division), at))}
      {takes.map((item, at) =>
        row(
          item.temperature_c == null
            ? item.name
            : `${item.name}, ${format.temperature(item.temperature_c)}`,
          format.mass(item.kg, item.division_kg),
          at,
        ),
      )}
    </ul>
  );
}

function Fact({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div>
      <dt className="text-sm text-iron">{name}</dt>
      <dd className="figure text-2xl leading-tight print:text-xl">{children}</dd>
    </div>
  );
}

/** The ice as weighed, which is rounded with everything else. */
function iceOf(sheet: Schemas["Sheet"]): number {
  return sheet.steps.flatMap((step) => step.takes).find((item) => item.name === "ice")?.kg ?? 0;
}

/** Minutes from the first water as h:mm. */
function clock(minutes: number): string {
  const whole = Math.floor(minutes);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}

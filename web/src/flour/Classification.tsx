import type { Schemas } from "../api/client";

const SYSTEM: Record<string, string> = {
  FR: "France",
  DE: "Germany",
  IT: "Italy",
  US: "United States",
};

/** What each national system calls the lot, and what hard and soft make of it. */
export function Classification({ lot }: { lot: Schemas["LotView"] }) {
  return (
    <section aria-labelledby="names" className="mt-6">
      <h2 id="names">Classification</h2>
      <dl className="mt-1 flex flex-wrap gap-x-10 gap-y-2">
        {lot.names.map((one) => (
          <div key={one.system} title={one.message}>
            <dt className="text-sm text-iron">{SYSTEM[one.system] ?? one.system}</dt>
            <dd>
              <span className="text-lg font-semibold">{one.name}</span>
              <span className="block text-xs text-iron">{one.message}</span>
            </dd>
          </div>
        ))}
        <div className="max-w-xs">
          <dt className="text-sm text-iron">Hard or soft</dt>
          <dd className="text-sm">{lot.hard_and_soft}</dd>
        </div>
      </dl>
    </section>
  );
}

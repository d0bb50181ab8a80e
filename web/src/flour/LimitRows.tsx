import { ASKED, emptyLimit, type TypedLimit } from "./limits";

const BASES = [
  ["as_is", "as is"],
  ["fourteen", "14 %"],
  ["dry_matter", "dry matter"],
] as const;

interface Props {
  limits: TypedLimit[];
  onChange: (change: (limits: TypedLimit[]) => TypedLimit[]) => void;
}

/** The limits of a specification, edited in place. */
export function LimitRows({ limits, onChange }: Props) {
  const set = (at: number, change: Partial<TypedLimit>) =>
    onChange((limits) => limits.map((limit, i) => (i === at ? { ...limit, ...change } : limit)));
  const unasked = ASKED.filter(([key]) => !limits.some((limit) => limit.property === key));
  return (
    <div className="overflow-x-auto">
      <table className="mt-2 w-full max-w-5xl">
        <caption className="sr-only">Limits</caption>
        <thead>
          <tr className="border-b border-ink">
            <th scope="col">property</th>
            <th scope="col">unit</th>
            <th scope="col">basis</th>
            <th scope="col" className="text-right">
              minimum
            </th>
            <th scope="col" className="text-right">
              target
            </th>
            <th scope="col" className="text-right">
              maximum
            </th>
            <th scope="col" className="pl-5">
              requirement
            </th>
            <th scope="col">method</th>
            <th scope="col">
              <span className="sr-only">remove</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {limits.map((limit, at) => {
            const [, label, unit, onBasis] = ASKED.find(([key]) => key === limit.property) ?? [
              "",
              limit.property,
              "",
              false,
            ];
            return (
              <tr key={limit.property} className="border-b border-hair">
                <th scope="row" className="text-base font-normal text-ink">
                  {label}
                </th>
                <td className="text-sm text-iron">{unit}</td>
                <td>
                  {onBasis && (
                    <select
                      aria-label={`${label}, basis`}
                      className="field w-28"
                      value={limit.basis ?? ""}
                      onChange={(event) =>
                        set(at, { basis: event.target.value as TypedLimit["basis"] })
                      }
                    >
                      {BASES.filter(
                        ([key]) => limit.property !== "absorption" || key !== "dry_matter",
                      ).map(([key, word]) => (
                        <option key={key} value={key}>
                          {word}
                        </option>
                      ))}
                    </select>
                  )}
                </td>
                {(["min", "target", "max"] as const).map((field) => (
                  <td key={field} className="pl-2">
                    <input
                      className="field ml-auto block w-20 text-right"
                      aria-label={`${label}, ${field}`}
                      inputMode="decimal"
                      autoComplete="off"
                      value={limit[field]}
                      onChange={(event) => set(at, { [field]: event.target.value })}
                    />
                  </td>
                ))}
                <td className="pl-5">
                  <select
                    aria-label={`${label}, must or should`}
                    className="field w-24"
                    value={limit.must ? "must" : "should"}
                    onChange={(event) => set(at, { must: event.target.value === "must" })}
                  >
                    <option>must</option>
                    <option>should</option>
                  </select>
                </td>
                <td>
                  <input
                    className="field w-36"
                    aria-label={`${label}, method`}
                    autoComplete="off"
                    value={limit.method}
                    onChange={(event) => set(at, { method: event.target.value })}
                  />
                </td>
                <td>
                  <button
                    type="button"
                    className="screen-only px-2 text-iron hover:text-stop"
                    aria-label={`Remove ${label}`}
                    onClick={() => onChange((limits) => limits.filter((_, i) => i !== at))}
                  >
                    ✕
                  </button>
                </td>
              </tr>
            );
          })}
        </tbody>
        {unasked.length > 0 && (
          <tfoot className="screen-only">
            <tr>
              <td colSpan={9} className="pt-2">
                <select
                  aria-label="Add a property"
                  className="border-b border-iron bg-paper"
                  value=""
                  onChange={(event) =>
                    onChange((limits) => [
                      ...limits,
                      emptyLimit(event.target.value as TypedLimit["property"]),
                    ])
                  }
                >
                  <option value="">add a property …</option>
                  {unasked.map(([key, word]) => (
                    <option key={key} value={key}>
                      {word}
                    </option>
                  ))}
                </select>
              </td>
            </tr>
          </tfoot>
        )}
      </table>
    </div>
  );
}

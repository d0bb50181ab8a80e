import { Select } from "../form/Select";
import { basesOf } from "./bases";
import { emptyLimit, type TypedLimit } from "./limits";
import { useProperties } from "./useProperties";

const REQUIREMENTS = [
  ["must", "must"],
  ["should", "should"],
] as const;

interface Props {
  limits: TypedLimit[];
  onChange: (change: (limits: TypedLimit[]) => TypedLimit[]) => void;
}

/** The limits of a specification, edited in place. */
export function LimitRows({ limits, onChange }: Props) {
  const set = (at: number, change: Partial<TypedLimit>) =>
    onChange((limits) => limits.map((limit, i) => (i === at ? { ...limit, ...change } : limit)));
  const properties = useProperties();
  const unasked = properties.filter(
    ({ property }) => !limits.some((limit) => limit.property === property),
  );
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
            const {
              label = limit.property,
              unit = "",
              bases = [],
            } = properties.find(({ property }) => property === limit.property) ?? {};
            return (
              <tr key={limit.property} className="border-b border-hair">
                <th scope="row" className="text-base font-normal text-ink">
                  {label}
                </th>
                <td className="text-sm text-iron">{unit}</td>
                <td>
                  {bases.length > 0 && (
                    <Select
                      label={`${label}, basis`}
                      place="hidden"
                      look="field"
                      className="block w-28"
                      value={limit.basis ?? ""}
                      options={basesOf(bases)}
                      onSet={(basis) => set(at, { basis })}
                    />
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
                  <Select
                    label={`${label}, must or should`}
                    place="hidden"
                    look="field"
                    className="block w-24"
                    value={limit.must ? "must" : "should"}
                    options={REQUIREMENTS}
                    onSet={(requirement) => set(at, { must: requirement === "must" })}
                  />
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
                <Select
                  label="Add a property"
                  place="hidden"
                  value=""
                  none="add a property …"
                  options={unasked.map(({ property, label }) => [property, label])}
                  onSet={(chosen) => {
                    const property = unasked.find((one) => one.property === chosen);
                    if (property) onChange((limits) => [...limits, emptyLimit(property)]);
                  }}
                />
              </td>
            </tr>
          </tfoot>
        )}
      </table>
    </div>
  );
}

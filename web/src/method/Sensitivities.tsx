import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";

/** What one small change would give. */
export function Sensitivities({ levers }: { levers: Schemas["Sensitivity"][] }) {
  const format = useFormat();
  return (
    <>
      <h2 className="mt-6">Sensitivities</h2>
      <table className="mt-1 w-full text-sm">
        <thead>
          <tr className="border-b border-ink">
            <th scope="col" className="py-1">
              would give
            </th>
            <th scope="col" className="text-right">
              water
            </th>
            <th scope="col" className="text-right">
              ice
            </th>
            <th scope="col" className="text-right">
              dough
            </th>
          </tr>
        </thead>
        <tbody>
          {levers.map((lever) => (
            <tr key={lever.lever} className="border-b border-hair">
              <th scope="row" className="py-1 text-ink">
                {format.text(lever.label)}
              </th>
              <td className="text-right">
                {lever.water_c === 0 ? "–" : format.degrees(lever.water_c)}
              </td>
              <td className="text-right">
                {lever.ice_kg === 0 ? "–" : format.figure(lever.ice_kg, "kg", true)}
              </td>
              <td className="text-right">
                {lever.dough_c === 0 ? "–" : format.degrees(lever.dough_c)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

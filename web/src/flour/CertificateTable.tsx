import type { Schemas } from "../api/client";
import { SpecificationRule } from "../figures/SpecificationRule";
import { GlossaryTerm } from "../shell/GlossaryTerm";
import { VERDICT } from "../shell/verdict";
import { useFormat } from "../units/format";
import { RowCells, type RowEdit } from "./RowCells";

interface Props {
  certificate: Schemas["Certificate"];
  /** When given, the rows can be edited. */
  edit?: RowEdit;
  /** Of each row the line it was read from, where its file has no columns. */
  excerpts?: (string | undefined)[];
}

/** A certificate: each reading as stated and on each basis, beside the flour's specification. */
export function CertificateTable({ certificate, edit, excerpts }: Props) {
  const { rows, assessment, earlier } = certificate;
  const rules = assessment?.checks ?? [];
  const stated = new Set(rows.map((row) => row.property));
  const missing = rules.filter((rule) => !stated.has(rule.property));
  const ruleOf = (row: Schemas["ReadRow"]) =>
    rules.find((rule) => rule.property === row.reading?.property);
  return (
    <div className="overflow-x-auto">
      <table className="w-full min-w-4xl">
        <caption className="sr-only">Readings of the certificate beside the specification</caption>
        <thead>
          <tr className="border-b border-ink">
            <th scope="col" className="py-1">
              property
            </th>
            <th scope="col" className="text-right">
              stated
            </th>
            <th scope="col" className="pl-1">
              unit
            </th>
            <th scope="col" className="pl-3">
              basis
            </th>
            <th scope="col" className="pl-3">
              method
            </th>
            <th scope="col" className="pl-3 text-right">
              as is
            </th>
            <th scope="col" className="pl-3 text-right">
              14 %
            </th>
            <th scope="col" className="pl-3 text-right">
              <GlossaryTerm of="dry matter">dry</GlossaryTerm>
            </th>
            <th scope="col" className="pl-5">
              specification
            </th>
            <th scope="col" className="pl-2">
              verdict
            </th>
            {edit && (
              <th scope="col">
                <span className="sr-only">remove</span>
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, at) => (
            <tr key={at} className="border-b border-hair align-middle">
              <RowCells row={row} at={at} edit={edit} excerpt={excerpts?.[at]} />
              <Bases on={row.reading?.on} />
              <RuleCells rule={ruleOf(row)} earlier={earlier} fault={row.fault} />
              {edit && (
                <td>
                  <button
                    type="button"
                    className="px-2 text-iron hover:text-stop"
                    aria-label={`Remove row ${at + 1}, ${row.written.property}`}
                    onClick={() => edit.remove(at)}
                  >
                    ✕
                  </button>
                </td>
              )}
            </tr>
          ))}
          {missing.map((rule) => (
            <tr key={rule.property} className="border-b border-hair align-middle">
              <th scope="row" className="py-1 text-base font-normal text-ink">
                {rule.label}
              </th>
              <td colSpan={4} className="pl-3 text-sm text-iron">
                not on the certificate
                {edit && (
                  <button
                    type="button"
                    className="link ml-3 text-ink"
                    onClick={() => edit.add(rule)}
                  >
                    type it in
                  </button>
                )}
              </td>
              <Bases on={undefined} />
              <RuleCells rule={rule} earlier={earlier} fault={null} />
              {edit && <td />}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Bases({ on }: { on: Schemas["ValuesByBasis"] | undefined }) {
  const format = useFormat();
  return (
    <>
      {([on?.as_is, on?.fourteen, on?.dry_matter] as const).map((value, at) => (
        <td key={at} className="pl-3 text-right whitespace-nowrap">
          {value != null && format.number(value, value < 5 ? 3 : 2)}
        </td>
      ))}
    </>
  );
}

interface RuleCellsProps {
  rule: Schemas["RequirementCheck"] | undefined;
  earlier: Schemas["EarlierReadings"][];
  fault: Schemas["RowFault"] | null | undefined;
}

function RuleCells({ rule, earlier, fault }: RuleCellsProps) {
  if (fault) {
    return (
      <td colSpan={2} className="py-1 pl-5 text-sm text-stop">
        {fault.message}
      </td>
    );
  }
  if (!rule)
    return (
      <td colSpan={2} className="pl-5 text-sm text-iron">
        not in the specification
      </td>
    );
  const { mark, word, colour } = VERDICT[rule.verdict];
  const run = earlier.find((one) => one.property === rule.property)?.values ?? [];
  return (
    <>
      <td className="w-76 py-0.5 pl-5">
        <SpecificationRule rule={rule} earlier={run} />
      </td>
      <td className="w-56 pl-2 text-sm">
        <span className={`${colour} font-semibold`}>
          {mark} {word}
        </span>
        {rule.verdict !== "in" && rule.value != null && (
          <span className="block leading-snug text-iron">{rule.message}</span>
        )}
      </td>
    </>
  );
}

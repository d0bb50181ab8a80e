import { useState } from "react";
import type { Schemas } from "../api/client";
import { ORIGIN } from "../shell/Derivation";
import { DataTable, type Column } from "../table/DataTable";
import { useFormat, type Format } from "../units/format";
import { CoefficientSheet } from "./CoefficientSheet";

type Coefficient = Schemas["CoefficientView"];

const band = (format: Format, { typical, low, high }: Schemas["Estimate"]) =>
  `${format.plain(typical)}${low === high ? "" : ` (${format.plain(low)} to ${format.plain(high)})`}`;

const house = ({ house }: Coefficient): Schemas["Estimate"] => ({
  typical: house.value,
  low: house.low,
  high: house.high,
});

const columns = (format: Format): Column<Coefficient>[] => [
  { head: "coefficient", of: (one) => one.house.name },
  {
    head: "default",
    of: (one) => one.house.value,
    figures: true,
    className: "whitespace-nowrap",
    show: (one) => band(format, house(one)),
  },
  { head: "unit", of: (one) => one.house.unit, className: "text-sm text-iron" },
  {
    head: "plant value",
    of: (one) => (one.own ? (one.own.off ? "off" : one.own.value.typical) : null),
    className: "font-semibold whitespace-nowrap",
    show: (one) => one.own && (one.own.off ? "off" : band(format, one.own.value)),
  },
  {
    head: "origin",
    of: (one) => (one.own ? "plant" : one.house.origin),
    show: (one) => {
      const { letter, word } = ORIGIN[one.own ? "plant" : one.house.origin];
      return (
        <abbr title={word} className="no-underline">
          {letter}
        </abbr>
      );
    },
  },
  {
    head: "why",
    of: (one) => one.own?.reason ?? one.house.source,
    className: "text-sm text-iron",
  },
];

interface Props {
  caption: string;
  coefficients: readonly Coefficient[];
  search?: string;
}

/** Coefficients with their bands, each to be put by the plant's own where it is no constant. */
export function CoefficientTable({ caption, coefficients, search }: Props) {
  const format = useFormat();
  const [open, setOpen] = useState<string | null>(null);
  return (
    <>
      <DataTable
        caption={caption}
        rows={coefficients}
        columns={columns(format)}
        rowKey={(one) => one.house.key}
        {...(search !== undefined && { search })}
        empty="None."
        act={(one) =>
          one.replaceable && (
            <button
              type="button"
              className="link text-sm"
              aria-label={`Change ${one.house.name}`}
              onClick={() => setOpen(one.house.key)}
            >
              Change
            </button>
          )
        }
      />
      <CoefficientSheet
        coefficient={coefficients.find((one) => one.house.key === open)}
        onClose={() => setOpen(null)}
      />
    </>
  );
}

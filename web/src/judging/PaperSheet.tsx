import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { HALVES } from "./sheet";

/** The sheet on paper: its code opens the same one on a tablet, so that it is typed in fast. */
export const PaperSheet = ({ blank, code }: { blank: Schemas["BlankSheet"]; code: ReactNode }) => (
  <section className="hidden print:block" aria-label="Paper sheet">
    <div className="flex items-start justify-between">
      <p>
        <b>
          Sample {blank.code}, {blank.product}
        </b>
        <br />
        Judge: ____________________ Date: ____________
      </p>
      {code}
    </div>
    <table className="mt-2 w-full text-[9pt]">
      <tbody>
        {blank.lines.map((line, at) => (
          <tr key={line.of} className="border-t border-hair align-top">
            <td className="w-96 py-0.5 pr-2 leading-tight">
              <b>
                {at + 1}. {line.label}
                {line.two_sided && " ±"}
              </b>
              <br />
              5: {line.anchors[2]}; 3: {line.anchors[1]}; 1: {line.anchors[0]}
            </td>
            {HALVES.map((mark) => (
              <td key={mark} className="py-0.5 text-center leading-tight">
                ○<br />
                {mark}
              </td>
            ))}
            <td className="py-0.5 pl-2 leading-tight whitespace-nowrap">
              {line.two_sided && "− / +"}
              {line.measure && (
                <>
                  <br />
                  ______ {line.measure.unit}
                </>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
    <p className="mt-2">Note: ______________________________________________</p>
  </section>
);

import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { useScenario } from "../scenario/ScenarioProvider";
import { lastWhile } from "../scenario/lastWhile";
import { useLot } from "../scenario/useChain";
import { Refusal } from "../form/Refusal";
import { Derivation } from "../shell/Derivation";
import { useFormat } from "../units/format";
import { NumberField } from "../form/NumberField";
import { FlourTabs } from "./FlourTabs";
import { NoLot } from "./NoLot";

interface Way {
  title: string;
  about: string;
  /** Key, label and what is wanted. */
  fields: [string, string, number | null][];
  remedy: Schemas["CorrectionInput"] | null;
}

/** Ways of correcting the selected lot: gluten, malt, sieve, part white. */
export function FlourCorrectionPage() {
  const { scenario } = useScenario();
  const lot = useLot(scenario.lot).data;
  const of = (property: string, on: "fourteen" | "dry_matter" | null) => {
    const reading = lot?.certificate.rows.find((row) => row.property === property)?.reading;
    return reading && (on ? reading.on[on] : reading.value);
  };
  const protein = of("protein", "fourteen");
  const falling = of("falling_number", null);
  const ash = of("ash", "dry_matter");
  const [want, setWant] = useState<Record<string, number | null>>({});
  const begun = useQuery({
    queryKey: ["correction targets", lot?.id],
    enabled: lot !== undefined,
    queryFn: () => {
      if (!lot) throw new Error("asked without a lot");
      const path = { lot_id: lot.id };
      return answer(api.GET("/api/v1/lots/{lot_id}/correction-targets", { params: { path } }));
    },
  }).data;
  const ashWanted = want.ash ?? begun?.ash_dm_pct ?? null;
  const white = want.white ?? begun?.white_ash_dm_pct ?? null;
  const proteinWanted = want.protein ?? begun?.protein_14_pct ?? null;
  const fallingWanted = want.falling ?? begun?.falling_number_s ?? null;
  const ways: Way[] = [
    {
      title: "Vital gluten",
      about: "for a protein",
      fields: [["protein", "Protein wanted on 14 %", proteinWanted]],
      remedy:
        proteinWanted === null ? null : { remedy: "vital_gluten", protein_14_pct: proteinWanted },
    },
    {
      title: "Malt",
      about: "for a falling number",
      fields: [["falling", "Falling number wanted", fallingWanted]],
      remedy: fallingWanted === null ? null : { remedy: "malt", falling_number_s: fallingWanted },
    },
    {
      title: "Sieve",
      about: "for an ash",
      fields: [["ash", "Ash wanted on dry matter", ashWanted]],
      remedy: ashWanted === null ? null : { remedy: "sieve", ash_dm_pct: ashWanted },
    },
    {
      title: "Part white",
      about: "flour in place of some of this one",
      fields: [
        ["ash", "Ash wanted on dry matter", ashWanted],
        ["white", "Ash of the white flour", white],
      ],
      remedy:
        ashWanted === null || white === null
          ? null
          : { remedy: "part_white", ash_dm_pct: ashWanted, white_ash_dm_pct: white },
    },
  ];
  return (
    <>
      <FlourTabs />
      {!lot && <NoLot />}
      {lot && (
        <>
          <h1>Flour correction, {lot.code}</h1>
          <p className="text-sm text-iron">
            {lot.flour.name}:{" "}
            {[
              protein != null && `protein ${protein.toFixed(1)} % on 14 %`,
              falling != null && `falling number ${falling.toFixed(0)} s`,
              ash != null && `ash ${ash.toFixed(2)} % on dry matter`,
            ]
              .filter(Boolean)
              .join(", ")}
          </p>
          <div className="mt-4 grid gap-x-12 gap-y-2 lg:grid-cols-2">
            {ways.map((way) => (
              <section key={way.title} className="border-t border-ink py-3">
                <h2>
                  {way.title} <span className="font-normal text-iron">{way.about}</span>
                </h2>
                <div className="mt-1 flex gap-6">
                  {way.fields.map(([key, label, value]) => (
                    <div key={key} className="w-44">
                      <NumberField
                        label={label}
                        kind="number"
                        value={value}
                        onSet={(next) => setWant({ ...want, [key]: next })}
                      />
                    </div>
                  ))}
                </div>
                <RecoveredBatch lotId={lot.id} remedy={way.remedy} of={way.title} />
              </section>
            ))}
          </div>
          <p className="mt-4 text-sm text-iron">
            Additions are declared where the law says so; take your supplier's doses and your
            country's limits before these. Vital gluten is wheat: mind allergens. Sieving makes
            dust: extract it, no flames.
          </p>
        </>
      )}
    </>
  );
}

function RecoveredBatch({
  lotId,
  remedy,
  of,
}: {
  lotId: string;
  remedy: Schemas["CorrectionInput"] | null;
  of: string;
}) {
  const format = useFormat();
  const { data, error } = useQuery({
    queryKey: ["mend", lotId, remedy],
    enabled: remedy !== null,
    placeholderData: lastWhile("mend", lotId),
    queryFn: () =>
      answer(
        api.POST("/api/v1/lots/{lot_id}/correction", {
          params: { path: { lot_id: lotId } },
          body: remedy ?? { remedy: "sieve", ash_dm_pct: 0 },
        }),
      ),
  });
  if (!remedy)
    return <p className="mt-2 text-iron">The certificate lacks the property this mends.</p>;
  if (error) return <Refusal error={error} />;
  if (!data) return null;
  const band = data.low_pct !== data.high_pct;
  return (
    <>
      <p className="mt-2">
        <span className="figure text-3xl">
          <Derivation why={data.why} of={of}>
            {format.percent(data.amount_pct, data.amount_pct < 1 ? 2 : 1)}
          </Derivation>
        </span>{" "}
        <span className="text-iron">
          {data.amount_of}
          {band &&
            `, likely ${format.number(data.low_pct, 2)} to ${format.number(data.high_pct, 2)}`}
        </span>
      </p>
      <p className="mt-1 max-w-prose text-sm">{data.message}.</p>
      <p className="mt-1 text-sm text-iron">
        {data.water_points !== 0 &&
          `Water ${format.signed(data.water_points)} points, ${format.signed(data.water_low)} to ${format.signed(data.water_high)}. `}
        100 of flour give {format.number(data.yield_pct)}.
      </p>
    </>
  );
}

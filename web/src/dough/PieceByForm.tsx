import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { Form } from "../form/Form";
import { NumberField } from "../form/NumberField";
import { optionsOf, Select } from "../form/Select";
import { useFormat } from "../units/format";

type Input = Schemas["PieceFormInput"];
type Measure = "volume_l" | "length_cm" | "width_cm" | "height_cm" | "diameter_cm" | "thickness_mm";

const FORMS = {
  tin_volume: "a tin, by its volume",
  tin_sides: "a tin, by its sides",
  disc: "a disc",
} as const satisfies Record<Schemas["PieceForm"], string>;

const DOUGHS = {
  white: "white",
  whole: "whole grain",
  rye: "rye",
} as const satisfies Record<Schemas["TinDough"], string>;

const MEASURES: Record<Schemas["PieceForm"], readonly (readonly [Measure, string])[]> = {
  tin_volume: [["volume_l", "Volume, l"]],
  tin_sides: [
    ["length_cm", "Length, cm"],
    ["width_cm", "Width, cm"],
    ["height_cm", "Height, cm"],
  ],
  disc: [
    ["diameter_cm", "Diameter, cm"],
    ["thickness_mm", "Thickness, mm"],
  ],
};

/** The piece that fills a tin or makes a disc, to be scaled at, or the form a piece fills. */
export function PieceByForm({
  scaledAt,
  onScale,
}: {
  scaledAt: number;
  onScale: (kg: number) => void;
}) {
  const format = useFormat();
  const [asked, set] = useState<Input>({ form: "tin_volume", dough: "white" });
  const find = useMutation({
    networkMode: "always",
    mutationFn: (body: Input) => answer(api.POST("/api/v1/piece-form", { body })),
  });
  const form = asked.form ?? "tin_volume";
  const change = (next: Partial<Input>) => {
    set((now) => ({ ...now, ...next }));
    find.reset();
  };
  const found = find.data;
  return (
    <Form
      label="Piece by tin or disc"
      className="mt-3 space-y-2 border-t border-hair pt-2"
      error={find.error}
      onSubmit={() => find.mutate(asked)}
    >
      <h3>By tin or disc</h3>
      <div className="grid grid-cols-2 gap-x-4 gap-y-2">
        <Select
          label="Form"
          value={form}
          options={optionsOf(FORMS)}
          onSet={(form) => change({ form })}
        />
        {form !== "disc" && (
          <Select
            label="Dough"
            value={asked.dough ?? "white"}
            options={optionsOf(DOUGHS)}
            onSet={(dough) => change({ dough })}
          />
        )}
        {MEASURES[form].map(([measure, label]) => (
          <NumberField
            key={measure}
            label={label}
            kind="number"
            value={asked[measure] ?? null}
            onSet={(value) => change({ [measure]: value ?? undefined })}
            field={measure}
          />
        ))}
      </div>
      <p className="flex flex-wrap gap-3">
        <button type="submit" className="act" disabled={find.isPending}>
          Piece that fills it
        </button>
        {form !== "tin_sides" && (
          <button
            type="button"
            className="act"
            onClick={() => find.mutate({ ...asked, piece_kg: scaledAt })}
          >
            {form === "disc" ? "Diameter of" : "Tin for"} {format.mass(scaledAt, 0.001)}
          </button>
        )}
      </p>
      {found && (
        <p role="status">
          <b className="figure text-lg">{format.mass(found.piece_kg.typical, 0.001)}</b>
          <span className="text-sm text-iron">
            {" "}
            ({format.mass(found.piece_kg.low, 0.001)} to {format.mass(found.piece_kg.high, 0.001)},
            house) for {format.number(found.volume_l, 2)} l
            {found.diameter_cm != null && `, ${format.number(found.diameter_cm)} cm across`}
          </span>{" "}
          <button
            type="button"
            className="link text-sm"
            onClick={() => onScale(Number(found.piece_kg.typical.toFixed(3)))}
          >
            Scale at it
          </button>
        </p>
      )}
    </Form>
  );
}

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { record } from "../api/outbox";
import { Author } from "../form/Author";
import { FieldText } from "../form/FieldText";
import { Form } from "../form/Form";
import { NumberField } from "../form/NumberField";
import { optionsOf, Select } from "../form/Select";
import { SPECIES } from "../plant/uses";
import { writeScenario } from "../scenario/scenario";
import { useScenario } from "../scenario/ScenarioProvider";
import { useGoOn } from "../shell/useGoOn";
import { useKept } from "../storage/useKept";
import { useFormat } from "../units/format";
import { FlourTabs } from "./FlourTabs";

const KEY = "ironpeel.bag";

interface Typing {
  flourId: string;
  lotId: string;
  name: string;
  mill: string;
  species: Schemas["Species"];
  flour_type: string;
  whole_grain: boolean;
  protein_pct: number | null;
  w: number | null;
  moisture_pct: number | null;
}

const begin = (kept?: Partial<Typing>): Typing => ({
  flourId: crypto.randomUUID(),
  lotId: crypto.randomUUID(),
  name: "",
  mill: "",
  species: "wheat",
  flour_type: "",
  whole_grain: false,
  protein_pct: null,
  w: null,
  moisture_pct: null,
  ...kept,
});

/** A flour and its lot in one step, from what a bag states. */
export function BagPage() {
  const format = useFormat();
  const types = useQuery({
    queryKey: ["flour types"],
    queryFn: () => answer(api.GET("/api/v1/flour-types")),
    staleTime: Infinity,
  }).data;
  const [typing, type, forget] = useKept(KEY, begin);
  const save = useSaveBag(typing, forget);
  const known = types?.filter((one) => one.species === typing.species) ?? [];
  const chosen = known.find((one) => one.key === typing.flour_type);
  return (
    <>
      <FlourTabs />
      <h1>Flour from a bag</h1>
      <p className="max-w-prose text-sm text-iron">
        Type what the bag states. The rest is taken as usual of such a flour, marked so, with a
        wider band; a certificate can be imported later.
      </p>
      <Form
        label="Flour from a bag"
        error={save.error}
        className="mt-4 max-w-2xl"
        onSubmit={() => save.mutate()}
      >
        <div className="grid grid-cols-2 gap-x-6 gap-y-3 sm:grid-cols-3">
          <FieldText
            label="Its name here"
            value={typing.name}
            onChange={(name) => type({ name })}
            field="name"
          />
          <FieldText
            label="Mill or seller"
            placeholder="not stated"
            value={typing.mill}
            onChange={(mill) => type({ mill })}
            field="mill"
          />
          <Select
            label="Grain"
            value={typing.species}
            options={optionsOf(SPECIES)}
            onSet={(species) => type({ species, flour_type: "" })}
          />
          <Select
            label="Type number"
            value={chosen?.key ?? ""}
            options={[["", "none"], ...known.map((one) => [one.key, one.key] as const)]}
            onSet={(flour_type) => type({ flour_type })}
            field="flour_type"
            hint={chosen && `usual ash ${format.percent(chosen.ash_pct, 2)}`}
          />
          <NumberField
            label="Protein, g in 100 g"
            kind="number"
            value={typing.protein_pct}
            onSet={(protein_pct) => type({ protein_pct })}
            field="protein_pct"
          />
          <NumberField
            label="W, 10⁻⁴ J"
            kind="number"
            value={typing.w}
            onSet={(w) => type({ w })}
            field="w"
          />
          <NumberField
            label="Moisture"
            kind="percent"
            value={typing.moisture_pct}
            onSet={(moisture_pct) => type({ moisture_pct })}
            field="moisture_pct"
          />
          <label className="flex items-center gap-2 self-end pb-1">
            <input
              type="checkbox"
              checked={typing.whole_grain || (chosen?.whole_grain ?? false)}
              disabled={chosen?.whole_grain}
              onChange={(event) => type({ whole_grain: event.target.checked })}
            />
            whole grain
          </label>
        </div>
        <div className="mt-4 flex items-end gap-6">
          <Author />
          <button type="submit" className="act act-main" disabled={save.isPending}>
            {save.isPending ? "Saving …" : "Save flour"}
          </button>
        </div>
      </Form>
    </>
  );
}

/** Records the bag, and leads back to where it is wanted. */
function useSaveBag(typing: Typing, forget: (as: Typing) => void) {
  const { newest } = useScenario();
  const [search] = useSearchParams();
  const queries = useQueryClient();
  const goOn = useGoOn();
  return useMutation({
    networkMode: "always",
    mutationFn: async () => {
      const { flourId, lotId, protein_pct, w, moisture_pct, ...stated } = typing;
      const lot = await record<Schemas["LotView"]>({
        path: `/api/v1/flours/${flourId}/bags/${lotId}`,
        label: `flour ${typing.name}`,
        subject: flourId,
        body: {
          ...stated,
          protein_pct: protein_pct ?? undefined,
          w: w ?? undefined,
          moisture_pct: moisture_pct ?? undefined,
          signed: {},
        },
        draft: { key: KEY, as: typing },
      });
      forget(typing);
      await Promise.all(
        ["flours", "lots", "lots of"].map((key) => queries.invalidateQueries({ queryKey: [key] })),
      );
      if (search.get("for") === "product") return goOn("/dough/new");
      const scenario = { ...newest().scenario, lot: lot.id };
      goOn({ pathname: "/flour", search: writeScenario(scenario).toString() });
    },
  });
}

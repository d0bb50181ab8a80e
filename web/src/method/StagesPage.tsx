import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { useScenario } from "../scenario/ScenarioProvider";
import { EmptyState } from "../shell/EmptyState";
import { useScenarioContext } from "../shell/useScenarioContext";
import { useFormat } from "../units/format";
import { NumberField } from "../form/NumberField";
import { Additions } from "./Additions";
import { Conditioners } from "./Conditioners";
import { asDraft } from "../scenario/documents";
import { newStage, PROCESSES, type StageInput } from "./method";
import { MethodRevisions } from "./MethodRevisions";
import { MethodTabs } from "./MethodTabs";
import { SaveMethod } from "./SaveMethod";
import { OptionalSteps } from "./OptionalSteps";
import { StageEditor } from "./StageEditor";
import { StageList } from "./StageList";
import { useGuide, useMethod } from "./useMethod";
import { optionsOf, Select } from "../form/Select";

/** The method's stages: how long, until when, why, and what may be changed about them. */
export function StagesPage() {
  const { product } = useScenarioContext();
  if (!product)
    return (
      <>
        <MethodTabs />
        <EmptyState link="method" />
      </>
    );
  return (
    <>
      <MethodTabs />
      <StagesOf key={product.slug} product={product} />
    </>
  );
}

function StagesOf({ product }: { product: Schemas["ProductView"] }) {
  const { method, edited, set, setStages } = useMethod();
  const { refused } = useScenarioContext();
  const guide = useGuide();
  const [open, setOpen] = useState<number | null>(null);
  if (!method) return null;
  const stages = method.stages ?? [];
  const fault = (field: string) => refused?.at(`now.method.${field}`);
  const setStage = (at: number, change: Partial<StageInput>) =>
    setStages((stages) => stages.map((stage, i) => (i === at ? { ...stage, ...change } : stage)));
  const move = (from: number, to: number) =>
    setStages((stages) => {
      const moved = [...stages];
      const [stage] = moved.splice(from, 1);
      if (stage) moved.splice(to, 0, stage);
      return moved;
    });
  const insert = (at: number) => {
    setStages((stages) => stages.toSpliced(at, 0, newStage()));
    setOpen(at);
  };
  const moveAddition = (place: number, from: number, to: number) =>
    setStages((stages) => {
      const moved = stages[from]?.adds?.[place];
      return stages.map((stage, at) => {
        const adds = stage.adds ?? [];
        if (at === from) return { ...stage, adds: adds.toSpliced(place, 1) };
        return at === to && moved ? { ...stage, adds: [...adds, moved] } : stage;
      });
    });
  return (
    <>
      <div className="flex flex-wrap items-end gap-x-10 gap-y-3">
        <div>
          <h1>Stages</h1>
          <p className="text-sm text-iron">
            {product.method.name}, revision {product.method.revision.number}
            {edited && " · edited"}
          </p>
        </div>
        <Select
          label="Process"
          value={method.process}
          options={optionsOf(PROCESSES)}
          onSet={(process) => set(() => ({ process }))}
        />
        <NumberField
          className="w-28"
          label="Off the mixer"
          kind="temperature"
          value={method.target_c ?? null}
          onSet={(value) => set(() => ({ target_c: value ?? product.method.target_c }))}
          fault={fault("target_c")}
        />
        {method.process === "sponge_dough" && (
          <NumberField
            className="w-28"
            label="Sponge set at"
            kind="temperature"
            value={method.sponge_c ?? null}
            usual={24}
            onSet={(value) => set(() => ({ sponge_c: value ?? undefined }))}
            fault={fault("sponge_c")}
          />
        )}
        <label className="flex items-center gap-2 pb-1">
          <input
            type="checkbox"
            checked={method.machine_divided ?? false}
            onChange={(event) => set(() => ({ machine_divided: event.target.checked }))}
          />
          divided by machine
        </label>
      </div>
      {edited && <SaveMethod product={product} method={method} />}
      {fault("stages") && (
        <p className="mt-3 text-stop" role="alert">
          {fault("stages")}.
        </p>
      )}
      <div className="mt-5 grid gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,1fr)_21rem]">
        <section aria-label="Stages">
          <StageList
            stages={stages}
            guide={guide}
            open={open}
            onOpen={(at) => setOpen(open === at ? null : at)}
            onMove={(from, to) => {
              move(from, to);
              setOpen(null);
            }}
            onMoveAddition={moveAddition}
            editor={(at) => (
              <StageEditor
                stage={stages[at] ?? newStage()}
                before={stages.slice(0, at)}
                usual={guide?.usual[at]}
                figure={guide && (guide.end_figures[at] ?? null)}
                end={guide?.ends.find((end) => end.stage === at)}
                coldC={guide?.cold_c ?? 0}
                fault={(field) => fault(`stages[${at}].${field}`)}
                onChange={(change) => setStage(at, change)}
                onMove={(by) => {
                  move(at, at + by);
                  setOpen(at + by);
                }}
                isFirst={at === 0}
                isLast={at === stages.length - 1}
                onRemove={() => {
                  setStages((stages) => stages.filter((_, i) => i !== at));
                  setOpen(null);
                }}
                onAddAfter={() => insert(at + 1)}
              >
                <Additions
                  adds={stages[at]?.adds ?? []}
                  stages={stages.map((stage) => stage.label ?? "")}
                  at={at}
                  fault={(field) => fault(`stages[${at}].${field}`)}
                  onChange={(adds) => setStage(at, { adds })}
                  onMove={(place, to) => moveAddition(place, at, to)}
                />
              </StageEditor>
            )}
          />
          <p className="screen-only mt-3 flex flex-wrap gap-3">
            <button type="button" className="act" onClick={() => insert(beforeOven(stages))}>
              Add a stage
            </button>
            <Families />
          </p>
        </section>
        <div className="space-y-7">
          {guide && <OptionalSteps optional={guide.optional} method={method} />}
          {guide && <Conditioners needs={guide.conditioning} />}
          <MethodRevisions method={product.method} />
        </div>
      </div>
    </>
  );
}

/** A stage nobody says the place of comes before the oven. */
function beforeOven(stages: StageInput[]) {
  const oven = stages.findIndex((stage) => stage.kind === "bake");
  return oven < 0 ? stages.length : oven;
}

/** Methods to begin with. */
function Families() {
  const { editMethod } = useScenario();
  const format = useFormat();
  const families = useQuery({
    queryKey: ["method families"],
    queryFn: () => answer(api.GET("/api/v1/method-families")),
    staleTime: Infinity,
  }).data;
  if (!families) return null;
  return (
    <Select
      label="Begin again from"
      value=""
      none="a family of methods …"
      options={families.map((one) => [
        one.key,
        `${one.name}, ${format.minutes(one.total_min ?? 0)}`,
      ])}
      onSet={(key) => {
        const family = families.find((one) => one.key === key);
        if (family) editMethod(asDraft(family));
      }}
    />
  );
}

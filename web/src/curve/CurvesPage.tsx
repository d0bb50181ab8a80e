import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../api/client";
import { FlourTabs } from "../flour/FlourTabs";
import { NoLot } from "../flour/NoLot";
import { useScenario } from "../scenario/ScenarioProvider";
import { useLot, useLotsOf } from "../scenario/useChain";
import { useFormat } from "../units/format";
import { CurveView } from "./CurveView";
import { ImportCurve } from "./ImportCurve";
import { RunInstrument } from "./RunInstrument";
import { Select } from "../form/Select";

/** The curves of the selected lot: read, marks moved, another lot's beneath, run or imported. */
export function CurvesPage() {
  const { scenario, search, show } = useScenario();
  const format = useFormat();
  const lot = useLot(scenario.lot).data;
  const curves = useCurves(scenario.lot);
  const lots = useLotsOf(lot?.flour.id).data?.lots;
  const chosen =
    curves?.find((one) => one.id === new URLSearchParams(search).get("curve")) ??
    curves?.find((one) => one.kind === "farinograph") ??
    curves?.[0];
  const [otherLot, setOtherLot] = useState("");
  const others = useCurves(otherLot || null);
  const under = others?.find((one) => one.kind === chosen?.kind)?.id;
  return (
    <>
      <FlourTabs />
      {!lot && <NoLot />}
      {lot && (
        <>
          <div className="flex flex-wrap items-end gap-x-8 gap-y-2">
            <h1>Curves of {lot.code}</h1>
            {curves && curves.length > 0 && (
              <Select
                label="curve"
                place="beside"
                className="text-sm font-semibold"
                value={chosen?.id ?? ""}
                options={curves.map((one) => [
                  one.id,
                  `${one.kind}, ${format.moment(one.made_at)}, ${one.source === "instrument" ? "instrument" : "imported"}`,
                ])}
                onSet={(curve) => show({ curve })}
              />
            )}
            {chosen && (
              <Select
                label="overlay"
                place="beside"
                className="text-sm"
                value={otherLot}
                options={[
                  ["", "no other lot"],
                  ...(lots ?? [])
                    .filter((one) => one.id !== lot.id)
                    .map((one) => [one.id, one.code] as const),
                ]}
                onSet={setOtherLot}
                hint={otherLot && others && !under && "it has no such curve"}
              />
            )}
          </div>
          {curves?.length === 0 && (
            <p className="mt-2">
              No curve of this lot yet. A curve shows what a figure hides: run the sample, or take
              in the laboratory's file.
            </p>
          )}
          {chosen && <CurveView key={chosen.id} id={chosen.id} underId={under} />}
          <div className="screen-only mt-8 grid gap-10 lg:grid-cols-2">
            <RunInstrument lot={lot} onDone={(curve) => show({ curve })} />
            <ImportCurve lot={lot} onDone={(curve) => show({ curve })} />
          </div>
        </>
      )}
    </>
  );
}

function useCurves(lotId: string | null) {
  return useQuery({
    queryKey: ["curves", lotId],
    enabled: lotId !== null,
    queryFn: () =>
      answer(
        api.GET("/api/v1/lots/{lot_id}/curves", { params: { path: { lot_id: lotId ?? "" } } }),
      ),
  }).data;
}

import { answer, api, type Schemas } from "../api/client";

type Instrument = "scale" | "dough_probe" | "jar_camera";

/** What a simulated instrument beside this station shows now. */
export const readInstrument = (
  batch: string,
  instrument: Instrument,
  line?: Pick<Schemas["WeighedLine"], "of" | "stage">,
) =>
  answer(
    api.GET("/api/v1/batches/{batch_id}/instrument", {
      params: {
        path: { batch_id: batch },
        query: {
          instrument,
          ...(line && { of: line.of }),
          ...(line?.stage && { stage: line.stage }),
        },
      },
    }),
  );

/** What reads a quantity, where something does. */
export const INSTRUMENT_OF: Partial<Record<Schemas["Quantity"], [Instrument, string]>> = {
  dough_c: ["dough_probe", "from the probe"],
  jar_rise_pct: ["jar_camera", "from the jar camera"],
};

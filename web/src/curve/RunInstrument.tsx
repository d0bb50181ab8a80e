import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { record } from "../api/outbox";
import { BubbleSheet, type DrawnBubble } from "../figures/BubbleSheet";
import { CurveSheet, type Drawn } from "../figures/CurveSheet";
import { Author } from "../form/Author";
import { Select } from "../form/Select";

type Kind = "farinograph" | "alveograph";
interface Live {
  kind: Kind;
  mixing: Drawn;
  bubbles: DrawnBubble[];
}

/** Runs the lot's sample on a simulated instrument, drawn live. */
export function RunInstrument({
  lot,
  onDone,
}: {
  lot: Schemas["LotView"];
  onDone: (id: string) => void;
}) {
  const [kind, setKind] = useState<Kind>("farinograph");
  const [speed, setSpeed] = useState(120);
  const [live, setLive] = useState<Live>();
  const [message, setSays] = useState<string>();
  const source = useRef<EventSource>(null);
  const stop = () => {
    source.current?.close();
    source.current = null;
    setLive(undefined);
  };
  useEffect(() => () => source.current?.close(), []);
  const run = () => {
    setSays(undefined);
    setLive({ kind, mixing: { t_s: [], fu: [], band_fu: [] }, bubbles: [] });
    const path = `/api/v1/lots/${lot.id}/instruments/${kind}/${crypto.randomUUID()}`;
    const events = new EventSource(`${path}?speed=${speed}`);
    source.current = events;
    events.addEventListener("points", (event) => {
      const part = JSON.parse((event as MessageEvent<string>).data) as Part;
      setLive((now) => now && drawnOn(now, part));
    });
    events.addEventListener("done", (event) => {
      stop();
      const id = (event as MessageEvent<string>).data;
      record({ path, label: `curve of ${lot.code}`, body: {} }).then(
        () => onDone(id),
        (error: Error) => setSays(error.message),
      );
    });
    events.onerror = () => {
      stop();
      setSays("The connection to the instrument was lost; nothing was recorded. Run it again");
    };
  };
  return (
    <section aria-labelledby="run">
      <h2 id="run">Run the sample</h2>
      <p className="text-sm text-iron">
        A simulated stand-in: it measures this lot with the noise its kind has.
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-4">
        <Select
          label="Instrument"
          value={kind}
          options={[
            ["farinograph", "farinograph, 300 g"],
            ["alveograph", "alveograph, 5 bubbles"],
          ]}
          onSet={setKind}
        />
        <Select
          label="Speed"
          value={String(speed)}
          options={[10, 60, 120, 600, 6000].map((one) => [String(one), `${one} times`])}
          onSet={(times) => setSpeed(Number(times))}
        />
        <Author label="Run by" />
        {live ? (
          <button type="button" className="act" onClick={stop}>
            Stop
          </button>
        ) : (
          <button type="button" className="act act-main" onClick={run}>
            Run
          </button>
        )}
      </div>
      {message && (
        <p className="mt-2 text-stop" role="alert">
          {message}.
        </p>
      )}
      {live && live.kind === "farinograph" && live.mixing.t_s.length > 1 && (
        <CurveSheet drawn={live.mixing} label="The curve as it is drawn" />
      )}
      {live && live.kind === "alveograph" && live.bubbles.length > 0 && (
        <BubbleSheet bubbles={live.bubbles} label="The bubbles as they are blown" />
      )}
    </section>
  );
}

interface Part extends Partial<DrawnBubble>, Partial<Drawn> {
  curve?: number;
}

/** The live drawing with a stretch more. */
function drawnOn(live: Live, part: Part): Live {
  if (part.curve !== undefined) {
    const bubbles = [...live.bubbles];
    const so = bubbles[part.curve] ?? { l_mm: [], p_mmh2o: [] };
    bubbles[part.curve] = {
      l_mm: [...so.l_mm, ...(part.l_mm ?? [])],
      p_mmh2o: [...so.p_mmh2o, ...(part.p_mmh2o ?? [])],
    };
    return { ...live, bubbles };
  }
  const { t_s, fu, band_fu } = live.mixing;
  return {
    ...live,
    mixing: {
      t_s: [...t_s, ...(part.t_s ?? [])],
      fu: [...fu, ...(part.fu ?? [])],
      band_fu: [...(band_fu ?? []), ...(part.band_fu ?? [])],
    },
  };
}

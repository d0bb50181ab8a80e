import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import type { Schemas } from "../api/client";

/*
 * What anybody writes is told by the server as it happens. One tab of a browser listens and tells
 * the others: a browser keeps few connections to one server.
 */

const CHANNEL = "ironpeel-live";
/** What comes together is looked at together. */
const TOGETHER_MS = 150;
const AGAIN_MS = 5000;

/** What is told: a batch that changed, by its id, or that anything may have. */
type Told = string | null;

/** Listens to the server until told to stop. */
function listen(onTold: (told: Told) => void): () => void {
  let source: EventSource;
  let again: ReturnType<typeof setTimeout> | undefined;
  let lost = false;
  const begin = () => {
    source = new EventSource("/api/v1/live");
    source.addEventListener("written", () => onTold(null));
    source.addEventListener("missed", () => onTold(null));
    source.addEventListener("batch", ({ data }: MessageEvent<string>) =>
      onTold((JSON.parse(data) as Schemas["BatchChange"]).id),
    );
    source.addEventListener("error", () => {
      lost = true;
      // A connection that broke is made anew by the browser; an answer that was none is not.
      if (source.readyState === EventSource.CLOSED) again = setTimeout(begin, AGAIN_MS);
    });
    source.addEventListener("listening", () => {
      // Something may have been written while nobody listened.
      if (lost) onTold(null);
      lost = false;
    });
  };
  begin();
  return () => {
    clearTimeout(again);
    source.close();
  };
}

/** Listens in this tab once no other does; what is heard is told to all of them. */
function listenForAll(onTold: (told: Told) => void): () => void {
  const others = new BroadcastChannel(CHANNEL);
  others.addEventListener("message", ({ data }: MessageEvent<Told>) => onTold(data));
  const stop = new AbortController();
  const hear = (told: Told) => {
    others.postMessage(told);
    onTold(told);
  };
  const asListener = () =>
    new Promise<void>((resolve) => {
      const close = listen(hear);
      stop.signal.addEventListener("abort", () => {
        close();
        resolve();
      });
    });
  navigator.locks.request(CHANNEL, { signal: stop.signal }, asListener).catch(() => {
    // Told to stop before it was its turn.
  });
  return () => {
    stop.abort();
    others.close();
  };
}

/** Looks at what is shown anew whenever somebody wrote something. */
export function useLive() {
  const queries = useQueryClient();
  useEffect(() => {
    if (typeof EventSource === "undefined") return;
    let soon: ReturnType<typeof setTimeout> | undefined;
    const onTold = (batch: Told) => {
      if (batch) {
        for (const key of [["batch run", batch], ["board"], ["batches"]]) {
          void queries.invalidateQueries({ queryKey: key });
        }
        return;
      }
      clearTimeout(soon);
      soon = setTimeout(() => void queries.invalidateQueries(), TOGETHER_MS);
    };
    // A page without encryption has no locks: there each tab listens.
    const stop = "locks" in navigator ? listenForAll(onTold) : listen(onTold);
    return () => {
      clearTimeout(soon);
      stop();
    };
  }, [queries]);
}

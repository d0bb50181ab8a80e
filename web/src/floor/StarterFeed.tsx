import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { FEED, type Run } from "./run";
import type { Said } from "./stamp";
import { useNow } from "./useNow";

interface Props {
  run: Run;
  feed: Schemas["FeedAt"];
  may: boolean;
  write: (label: string, said: Said) => void;
}

/** When and how a batch's starter is fed before it begins, and that it was. */
export function StarterFeed({ run, feed, may, write }: Props) {
  const format = useFormat();
  const now = useNow(10_000);
  const fed = run.record.placed.find((one) => one.kind === "note" && one.of === FEED);
  const due = Date.parse(feed.at);
  const grams = (g: number) => format.mass(g / 1000, 0.001);
  return (
    <section className="mt-6 text-xl" aria-label="Starter">
      <h2 className="text-xl">Starter</h2>
      <p>
        {fed ? (
          <>Fed at {format.moment(fed.happened_at)}.</>
        ) : (
          <>
            Feed it at{" "}
            <b className={due < now ? "text-stop" : ""}>
              {format.moment(feed.at)}
              {due < now && `, ${format.minutes(Math.round((now - due) / 60_000))} late`}
            </b>
            : {grams(feed.starter_g)} starter, {grams(feed.flour_g)} flour, {grams(feed.water_g)}{" "}
            water.
          </>
        )}{" "}
        Ripe at {format.moment(feed.ripe_at)}.
      </p>
      {may && !fed && (
        <button
          type="button"
          className="act mt-2 min-h-16 w-full text-xl"
          onClick={() =>
            write("starter fed", { kind: "note", of: FEED, text: "The starter was fed" })
          }
        >
          Starter fed
        </button>
      )}
    </section>
  );
}

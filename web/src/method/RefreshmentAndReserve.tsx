import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";

interface Props {
  feed: Schemas["FeedAt"] | null | undefined;
  spare: Schemas["FrozenReserve"] | null | undefined;
}

/** What else has an hour: the starter's feed before, and the spare pieces after. */
export function RefreshmentAndReserve({ feed, spare }: Props) {
  const format = useFormat();
  if (!feed && !spare) return null;
  return (
    <div className="mt-4 grid gap-x-12 gap-y-4 sm:grid-cols-2">
      {feed && (
        <section aria-labelledby="feed" className="border-l-4 border-moss pl-3">
          <h2 id="feed">Refresh the starter {format.moment(feed.at)}</h2>
          <p>
            {format.number(feed.starter_g, 0)} g starter, {format.number(feed.flour_g, 0)} g flour,{" "}
            {format.number(feed.water_g, 0)} g water: ripe when the dough is mixed,{" "}
            {format.moment(feed.ripe_at)}.
          </p>
        </section>
      )}
      {spare && (
        <section aria-labelledby="spare" className="border-l-4 border-water pl-3">
          <h2 id="spare">{spare.pieces} surplus pieces</h2>
          <p>
            Into the freezer {format.moment(spare.freeze_at)}, cold through; into the refrigerator{" "}
            {format.moment(spare.thaw_at)}; out {format.moment(spare.out_at)}, for{" "}
            {format.moment(spare.use_at)}. They keep until {format.date(spare.keep_until)}.
          </p>
        </section>
      )}
    </div>
  );
}

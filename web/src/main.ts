// First: it asks while the rest is still read.
import { figures, queries, session, words } from "./ahead";
import { onRecorded } from "./api/outbox";
import { show } from "./app";
import { loadAll } from "./pages";
import { keepShell } from "./shell/keepShell";
import { isZoneKnown } from "./units/clock";

/** How long the first view waits for its figures before it is shown without. */
const PATIENCE_MS = 1000;

// Whatever was recorded, here or in another tab, may change what is shown.
let isRecorded = false;
onRecorded(() => {
  isRecorded = true;
  void queries.invalidateQueries();
});

const late = new Promise<undefined>((resolve) => setTimeout(resolve, PATIENCE_MS));
const [search] = await Promise.race([
  Promise.all([figures, session]),
  late.then(() => [undefined]),
]);
if (search) history.replaceState(history.state, "", search + location.hash);
// The first time no hour is shown before the plant's clock is known; later what was kept will do.
if (!isZoneKnown()) await words;
// What was asked for before it was recorded counts for nothing.
if (isRecorded) queries.clear();
show(queries);
// Once the first view stands.
setTimeout(() => {
  loadAll();
  void keepShell();
}, 1500);

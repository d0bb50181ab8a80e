import { QueryClient } from "@tanstack/react-query";
import { isFinal } from "./api/client";
import { loadAll, loadOf } from "./pages";
import { askAhead } from "./scenario/askAhead";
import { askPlantWords, isZoneKnown } from "./units/clock";

/** How long the first view waits for its figures before it is shown without. */
const PATIENCE_MS = 1000;

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 15_000,
      retry: (count, error) => !isFinal(error) && count < 3,
    },
  },
});

// The page's head has the code of the views sent for; their figures are asked for meanwhile.
loadOf(location.pathname);
const words = askPlantWords();
const ahead = askAhead(queries, location.search).catch(() => undefined);
const late = new Promise<undefined>((resolve) => setTimeout(resolve, PATIENCE_MS));
const search = await Promise.race([ahead, late]);
if (search) history.replaceState(history.state, "", search + location.hash);

const { show } = await import("./app");
// The first time no hour is shown before the plant's clock is known; later what was kept will do.
if (!isZoneKnown()) await words;
await show(queries);
// Once the first view stands.
setTimeout(loadAll, 1500);

import { QueryClient } from "@tanstack/react-query";
import { isFinal } from "./api/client";
import { loadOf } from "./pages";
import { askAhead } from "./scenario/askAhead";
import { askPlantWords } from "./units/clock";

// What the first view stands on is asked for as soon as this is read, before the code that shows it.

export const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 15_000,
      retry: (count, error) => !isFinal(error) && count < 3,
    },
  },
});

/** What is everybody's. */
export const words = askPlantWords();
/** The first view's figures, and the address they are of. */
export const figures = askAhead(queries, location.search).catch(() => undefined);

loadOf(location.pathname);

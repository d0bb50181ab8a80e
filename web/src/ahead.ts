import { MutationCache, QueryCache, QueryClient } from "@tanstack/react-query";
import { isFinal } from "./api/client";
import { onSignedOut, setSender } from "./api/outbox";
import { loadOf } from "./pages";
import { isSignedOut, senderOf, SESSION } from "./session/session";
import { askAhead } from "./scenario/askAhead";
import { askPlantWords } from "./units/clock";

// What the first view stands on is asked for as soon as this is read, before the code that shows it.

/**
 * Somebody was not known: it may be that nobody is signed in any more, or that what was asked before
 * this browser became a station is answered after. Who is, the server says.
 */
const onError = (error: unknown) => {
  if (isSignedOut(error)) signedOut();
};
const signedOut = () => void queries.invalidateQueries({ queryKey: SESSION.queryKey });

export const queries = new QueryClient({
  queryCache: new QueryCache({ onError }),
  mutationCache: new MutationCache({ onError }),
  defaultOptions: {
    queries: {
      staleTime: 15_000,
      retry: (count, error) => !isFinal(error) && count < 3,
    },
  },
});

onSignedOut(signedOut);

/** Who is signed in; what waits of theirs is sent. */
export const session = queries.prefetchQuery(SESSION);
queries.getQueryCache().subscribe(() => {
  setSender(senderOf(queries.getQueryData(SESSION.queryKey)));
});

/** What is everybody's. */
export const words = askPlantWords();
/** The first view's figures, and the address they are of. */
export const figures = askAhead(queries, location.search).catch(() => undefined);

loadOf(location.pathname);

import { MutationCache, QueryCache, QueryClient } from "@tanstack/react-query";
import { isFinal } from "./api/client";
import { onSignedOut, setSender } from "./api/outbox";
import { loadOf } from "./pages";
import { isSignedOut, NOBODY, senderOf, SESSION } from "./session/session";
import { forgetRuns } from "./api/keptAnswers";
import { askAhead } from "./scenario/askAhead";
import { askPlantWords } from "./units/clock";

// What the first view stands on is asked for as soon as this is read, before the code that shows it.

/** Whatever says so first, nobody is signed in any more. */
const onError = (error: unknown) => {
  if (isSignedOut(error)) signedOut();
};
const signedOut = () => {
  void forgetRuns();
  queries.setQueryData(SESSION.queryKey, NOBODY);
};

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

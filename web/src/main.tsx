import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import "./index.css";
import { isFinal } from "./api/client";
import { onRecorded } from "./api/outbox";
import { askPlantWords, isZoneKnown } from "./units/clock";
import { loadAll, ROUTES } from "./routes";
import { PreferencesProvider } from "./units/preferences";

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 15_000,
      retry: (count, error) => !isFinal(error) && count < 3,
    },
  },
});

// Whatever was recorded, here or in another tab, may change what is shown.
onRecorded(() => void queries.invalidateQueries());

const router = createBrowserRouter(ROUTES);

const root = document.getElementById("root");
const asked = askPlantWords();
// The first time no hour is shown before the plant's clock is known; later what was kept will do.
if (!isZoneKnown()) await asked;
if (root) {
  createRoot(root).render(
    <StrictMode>
      <PreferencesProvider>
        <QueryClientProvider client={queries}>
          <RouterProvider router={router} />
        </QueryClientProvider>
      </PreferencesProvider>
    </StrictMode>,
  );
}
// Once the first view stands.
setTimeout(loadAll, 1500);

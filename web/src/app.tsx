import { QueryClientProvider, type QueryClient } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import "./index.css";
import { ROUTES } from "./routes";
import { PreferencesProvider } from "./units/preferences";

/** Shows the view the address names, once its code is there. */
export async function show(queries: QueryClient) {
  const root = document.getElementById("root");
  if (!root) return;
  const router = createBrowserRouter(ROUTES);
  await new Promise<void>((resolve) => {
    if (router.state.initialized) resolve();
    else router.subscribe((state) => state.initialized && resolve());
  });
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

import { QueryClientProvider, type QueryClient } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import "./index.css";
import { SignedIn } from "./people/SignedIn";
import { ROUTES } from "./routes";
import { PreferencesProvider } from "./units/preferences";
import { followWay } from "./scenario/underWay";

/** Shows the frame with its figures, and the view the address names once its code is there. */
export function show(queries: QueryClient) {
  const root = document.getElementById("root");
  if (!root) return;
  const router = createBrowserRouter(ROUTES);
  followWay(router);
  createRoot(root).render(
    <StrictMode>
      <PreferencesProvider>
        <QueryClientProvider client={queries}>
          <SignedIn>
            <RouterProvider router={router} />
          </SignedIn>
        </QueryClientProvider>
      </PreferencesProvider>
    </StrictMode>,
  );
}

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import "./index.css";
import { Refused } from "./api/client";
import { DoughPage } from "./dough/DoughPage";
import { BatchPage } from "./floor/BatchPage";
import { FloorPage } from "./floor/FloorPage";
import { FlourPage } from "./flour/FlourPage";
import { IntakePage } from "./flour/IntakePage";
import { MethodPage } from "./method/MethodPage";
import { Lost } from "./shell/Lost";
import { Shell } from "./shell/Shell";
import { StartPage } from "./start/StartPage";
import { PreferencesProvider } from "./units/preferences";
import { WaterPage } from "./water/WaterPage";

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 15_000,
      retry: (count, error) => !(error instanceof Refused) && count < 3,
    },
  },
});

const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Lost />,
    children: [
      { path: "/", element: <StartPage /> },
      { path: "/flour", element: <FlourPage /> },
      { path: "/flour/intake", element: <IntakePage /> },
      { path: "/water", element: <WaterPage /> },
      { path: "/dough", element: <DoughPage /> },
      { path: "/method", element: <MethodPage /> },
      { path: "/floor", element: <FloorPage /> },
      { path: "/batches/:id", element: <BatchPage /> },
      { path: "*", element: <Lost /> },
    ],
  },
]);

const root = document.getElementById("root");
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

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import "./index.css";
import { isFinal } from "./api/client";
import { onRecorded } from "./api/outbox";
import { CurvesPage } from "./curve/CurvesPage";
import { AmountsPage } from "./dough/AmountsPage";
import { DoughPage } from "./dough/DoughPage";
import { IngredientsPage } from "./dough/IngredientsPage";
import { NewProductPage } from "./dough/NewProductPage";
import { RevisionsPage } from "./dough/RevisionsPage";
import { TrialPage } from "./dough/TrialPage";
import { VariantsPage } from "./dough/VariantsPage";
import { BatchPage } from "./floor/BatchPage";
import { FloorPage } from "./floor/FloorPage";
import { BlendPage } from "./flour/BlendPage";
import { ChangePage } from "./flour/ChangePage";
import { DriftPage } from "./flour/DriftPage";
import { FlourPage } from "./flour/FlourPage";
import { ImportPage } from "./flour/ImportPage";
import { IntakePage } from "./flour/IntakePage";
import { MendPage } from "./flour/MendPage";
import { SpecificationPage } from "./flour/SpecificationPage";
import { DayPage } from "./method/DayPage";
import { MethodPage } from "./method/MethodPage";
import { RisePage } from "./method/RisePage";
import { LinePage } from "./method/LinePage";
import { RunPage } from "./method/RunPage";
import { SpongePage } from "./method/SpongePage";
import { StagesPage } from "./method/StagesPage";
import { StarterPage } from "./method/StarterPage";
import { TwoWaysPage } from "./method/TwoWaysPage";
import { Lost } from "./shell/Lost";
import { Shell } from "./shell/Shell";
import { ViewFault } from "./shell/ViewFault";
import { StartPage } from "./start/StartPage";
import { askPlantZone, isZoneKnown } from "./units/clock";
import { PreferencesProvider } from "./units/preferences";
import { GrainsPage } from "./water/GrainsPage";
import { HoldersPage } from "./water/HoldersPage";
import { LotsPage } from "./water/LotsPage";
import { ModelPage } from "./water/ModelPage";
import { RulesPage } from "./water/RulesPage";
import { WaterPage } from "./water/WaterPage";

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

const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Lost />,
    children: [
      // A fault in one view is that view's.
      {
        errorElement: <ViewFault />,
        children: [
          { path: "/", element: <StartPage /> },
          { path: "/flour", element: <FlourPage /> },
          { path: "/flour/intake", element: <IntakePage /> },
          { path: "/flour/import", element: <ImportPage /> },
          { path: "/flour/change", element: <ChangePage /> },
          { path: "/flour/drift/:flourId?", element: <DriftPage /> },
          { path: "/flour/curves", element: <CurvesPage /> },
          { path: "/flour/specification/:flourId?", element: <SpecificationPage /> },
          { path: "/flour/blend", element: <BlendPage /> },
          { path: "/flour/mend", element: <MendPage /> },
          { path: "/water", element: <WaterPage /> },
          { path: "/water/lots", element: <LotsPage /> },
          { path: "/water/holders", element: <HoldersPage /> },
          { path: "/water/grains", element: <GrainsPage /> },
          { path: "/water/rules", element: <RulesPage /> },
          { path: "/water/model", element: <ModelPage /> },
          { path: "/dough", element: <DoughPage /> },
          { path: "/dough/variants", element: <VariantsPage /> },
          { path: "/dough/amounts", element: <AmountsPage /> },
          { path: "/dough/revisions", element: <RevisionsPage /> },
          { path: "/dough/ingredients", element: <IngredientsPage /> },
          { path: "/dough/new", element: <NewProductPage /> },
          { path: "/trials/:id", element: <TrialPage /> },
          { path: "/method", element: <MethodPage /> },
          { path: "/method/stages", element: <StagesPage /> },
          { path: "/method/line", element: <LinePage /> },
          { path: "/method/sponge", element: <SpongePage /> },
          { path: "/method/two-ways", element: <TwoWaysPage /> },
          { path: "/method/rise", element: <RisePage /> },
          { path: "/method/starter", element: <StarterPage /> },
          { path: "/method/day", element: <DayPage /> },
          { path: "/method/run", element: <RunPage /> },
          { path: "/floor", element: <FloorPage /> },
          { path: "/batches/:id", element: <BatchPage /> },
          { path: "*", element: <Lost /> },
        ],
      },
    ],
  },
]);

const root = document.getElementById("root");
const asked = askPlantZone();
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

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import "./index.css";
import { isFinal } from "./api/client";
import { onRecorded } from "./api/outbox";
import { CurvesPage } from "./curve/CurvesPage";
import { ConvertRecipePage } from "./dough/ConvertRecipePage";
import { DoughPage } from "./dough/DoughPage";
import { IngredientsPage } from "./dough/IngredientsPage";
import { NewProductPage } from "./dough/NewProductPage";
import { RevisionsPage } from "./dough/RevisionsPage";
import { TrialPage } from "./dough/TrialPage";
import { TrialsPage } from "./dough/TrialsPage";
import { BatchPage } from "./floor/BatchPage";
import { FloorPage } from "./floor/FloorPage";
import { BlendCalculatorPage } from "./flour/BlendCalculatorPage";
import { CompareLotsPage } from "./flour/CompareLotsPage";
import { ControlChartPage } from "./flour/ControlChartPage";
import { FlourPage } from "./flour/FlourPage";
import { BulkImportPage } from "./flour/BulkImportPage";
import { ReceiveFlourPage } from "./flour/ReceiveFlourPage";
import { FlourCorrectionPage } from "./flour/FlourCorrectionPage";
import { SpecificationPage } from "./flour/SpecificationPage";
import { SchedulePage } from "./method/SchedulePage";
import { DoughTemperaturePage } from "./method/DoughTemperaturePage";
import { FermentationPage } from "./method/FermentationPage";
import { LinePage } from "./method/LinePage";
import { ProductionRunPage } from "./method/ProductionRunPage";
import { SpongePage } from "./method/SpongePage";
import { StagesPage } from "./method/StagesPage";
import { StarterPage } from "./method/StarterPage";
import { ProcessComparisonPage } from "./method/ProcessComparisonPage";
import { ErrorPage } from "./shell/ErrorPage";
import { Shell } from "./shell/Shell";
import { ViewFault } from "./shell/ViewFault";
import { StartPage } from "./start/StartPage";
import { askPlantZone, isZoneKnown } from "./units/clock";
import { PreferencesProvider } from "./units/preferences";
import { GrainsPage } from "./water/GrainsPage";
import { WaterDistributionPage } from "./water/WaterDistributionPage";
import { CompareProductLotsPage } from "./water/CompareProductLotsPage";
import { AbsorptionModelPage } from "./water/AbsorptionModelPage";
import { CorrectionFactorsPage } from "./water/CorrectionFactorsPage";
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
    errorElement: <ErrorPage />,
    children: [
      // A fault in one view is that view's.
      {
        errorElement: <ViewFault />,
        children: [
          { path: "/", element: <StartPage /> },
          { path: "/flour", element: <FlourPage /> },
          { path: "/flour/intake", element: <ReceiveFlourPage /> },
          { path: "/flour/import", element: <BulkImportPage /> },
          { path: "/flour/change", element: <CompareLotsPage /> },
          { path: "/flour/drift/:flourId?", element: <ControlChartPage /> },
          { path: "/flour/curves", element: <CurvesPage /> },
          { path: "/flour/specification/:flourId?", element: <SpecificationPage /> },
          { path: "/flour/blend", element: <BlendCalculatorPage /> },
          { path: "/flour/mend", element: <FlourCorrectionPage /> },
          { path: "/water", element: <WaterPage /> },
          { path: "/water/lots", element: <CompareProductLotsPage /> },
          { path: "/water/holders", element: <WaterDistributionPage /> },
          { path: "/water/grains", element: <GrainsPage /> },
          { path: "/water/rules", element: <CorrectionFactorsPage /> },
          { path: "/water/model", element: <AbsorptionModelPage /> },
          { path: "/dough", element: <DoughPage /> },
          { path: "/dough/variants", element: <TrialsPage /> },
          { path: "/dough/amounts", element: <ConvertRecipePage /> },
          { path: "/dough/revisions", element: <RevisionsPage /> },
          { path: "/dough/ingredients", element: <IngredientsPage /> },
          { path: "/dough/new", element: <NewProductPage /> },
          { path: "/trials/:id", element: <TrialPage /> },
          { path: "/method", element: <DoughTemperaturePage /> },
          { path: "/method/stages", element: <StagesPage /> },
          { path: "/method/line", element: <LinePage /> },
          { path: "/method/sponge", element: <SpongePage /> },
          { path: "/method/two-ways", element: <ProcessComparisonPage /> },
          { path: "/method/rise", element: <FermentationPage /> },
          { path: "/method/starter", element: <StarterPage /> },
          { path: "/method/day", element: <SchedulePage /> },
          { path: "/method/run", element: <ProductionRunPage /> },
          { path: "/floor", element: <FloorPage /> },
          { path: "/batches/:id", element: <BatchPage /> },
          { path: "*", element: <ErrorPage /> },
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

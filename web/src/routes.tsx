import { redirect, type LoaderFunctionArgs, type RouteObject } from "react-router";
import { DropOverlay } from "./flour/DropOverlay";
import {
  curve,
  dough,
  floor,
  flour,
  judging,
  method,
  oven,
  people,
  plant,
  results,
  run,
  start,
  water,
} from "./pages";
import { ErrorPage } from "./shell/ErrorPage";
import { Shell } from "./shell/Shell";
import { ViewFault } from "./shell/ViewFault";

const page = <M, K extends keyof M>(
  path: string,
  load: () => Promise<M>,
  name: K,
): RouteObject => ({
  path,
  lazy: async () => ({ Component: (await load())[name] as React.ComponentType }),
});

/** Addresses of earlier versions, shared and bookmarked, and where they are now. */
const MOVED = {
  "/flour/change": "/flour/compare",
  "/flour/drift": "/flour/control-chart",
  "/flour/mend": "/flour/correction",
  "/flour/intake": "/flour/receive",
  "/water/lots": "/water/compare",
  "/water/holders": "/water/distribution",
  "/water/rules": "/water/correction-factors",
  "/water/model": "/water/absorption-model",
  "/dough/variants": "/dough/trials",
  "/dough/amounts": "/dough/convert",
  "/dough/ingredients": "/plant/ingredients",
  "/method/two-ways": "/method/straight-or-sponge",
  "/method/rise": "/method/fermentation",
  "/method/day": "/method/schedule",
  "/method/run": "/method/production-run",
};

const moved = Object.entries(MOVED).map(([from, to]): RouteObject => ({
  path: `${from}/*`,
  loader: ({ params, request }: LoaderFunctionArgs) =>
    redirect(to + (params["*"] ? `/${params["*"]}` : "") + new URL(request.url).search),
}));

/** Every address, and the page that stands there. */
export const ROUTES: RouteObject[] = [
  // The floor has a frame of its own, and little else to load.
  {
    errorElement: <ViewFault />,
    hydrateFallbackElement: <></>,
    children: [page("/board", run, "BoardPage"), page("/batches/:id/run", run, "RunPage")],
  },
  {
    element: (
      <Shell>
        <DropOverlay />
      </Shell>
    ),
    errorElement: <ErrorPage />,
    children: [
      // A fault in one view is that view's.
      {
        errorElement: <ViewFault />,
        hydrateFallbackElement: <></>,
        children: [
          page("/", start, "StartPage"),
          page("/flour", flour, "FlourPage"),
          page("/flour/receive", flour, "ReceiveFlourPage"),
          page("/flour/bag", flour, "BagPage"),
          page("/flour/report", flour, "MillReportPage"),
          page("/flour/label", flour, "LotLabelPage"),
          page("/flour/import", flour, "BulkImportPage"),
          page("/flour/compare", flour, "CompareLotsPage"),
          page("/flour/control-chart/:flourId?", flour, "ControlChartPage"),
          page("/flour/curves", curve, "CurvesPage"),
          page("/flour/specification/:flourId?", flour, "SpecificationPage"),
          page("/flour/blend", flour, "BlendCalculatorPage"),
          page("/flour/correction", flour, "FlourCorrectionPage"),
          page("/water", water, "WaterPage"),
          page("/water/compare", water, "CompareProductLotsPage"),
          page("/water/distribution", water, "WaterDistributionPage"),
          page("/water/grains", water, "GrainsPage"),
          page("/water/correction-factors", water, "CorrectionFactorsPage"),
          page("/water/absorption-model", water, "AbsorptionModelPage"),
          page("/dough", dough, "DoughPage"),
          page("/dough/trials", dough, "TrialsPage"),
          page("/dough/convert", dough, "ConvertRecipePage"),
          page("/dough/revisions", dough, "RevisionsPage"),
          page("/dough/new", dough, "NewProductPage"),
          page("/trials/:id", dough, "TrialPage"),
          page("/method", method, "DoughTemperaturePage"),
          page("/method/stages", method, "StagesPage"),
          page("/method/line", method, "LinePage"),
          page("/method/sponge", method, "SpongePage"),
          page("/method/straight-or-sponge", method, "ProcessComparisonPage"),
          page("/method/fermentation", method, "FermentationPage"),
          page("/method/starter", method, "StarterPage"),
          page("/method/schedule", method, "SchedulePage"),
          page("/method/production-run", method, "ProductionRunPage"),
          page("/floor", floor, "FloorPage"),
          {
            path: "/plant",
            loader: ({ request }) => redirect(`/plant/flours${new URL(request.url).search}`),
          },
          page("/plant/mills", plant, "MillsPage"),
          page("/plant/flours", plant, "FloursPage"),
          page("/plant/products", plant, "ProductsPage"),
          page("/plant/lines/:lineId?", plant, "LinesPage"),
          page("/plant/ingredients", plant, "IngredientsPage"),
          page("/plant/coefficients", plant, "CoefficientsPage"),
          page("/plant/settings", plant, "SettingsPage"),
          page("/plant/people", people, "PeoplePage"),
          page("/plant/keys", people, "KeysPage"),
          page("/plant/stations", people, "StationsPage"),
          page("/plant/audit", people, "AuditPage"),
          page("/batches/:id", floor, "BatchPage"),
          page("/oven", oven, "BakesPage"),
          page("/oven/bakes/:id", oven, "BakePage"),
          page("/judge/:code?", judging, "JudgePage"),
          page("/results/scores/:id?", judging, "ScoresPage"),
          page("/results/standard", judging, "StandardPage"),
          page("/results", results, "BatchesPage"),
          page("/results/charts", results, "ChartsPage"),
          page("/results/compare", results, "CompareBatchesPage"),
          page("/results/faults", results, "FaultsPage"),
          page("/results/learned", results, "LearnedPage"),
          page("/results/recall", results, "RecallPage"),
          page("/results/quarter", results, "QuarterPage"),
          ...moved,
          { path: "*", element: <ErrorPage /> },
        ],
      },
    ],
  },
];

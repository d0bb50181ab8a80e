import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useEffect, type ReactNode } from "react";
import { createMemoryRouter, Outlet, RouterProvider, useLocation } from "react-router";
import { expect } from "vitest";
import { ScenarioProvider, useScenario } from "../src/scenario/ScenarioProvider";
import { useChain } from "../src/scenario/useChain";
import { PreferencesProvider, type Preferences } from "../src/units/preferences";

/** Where the page stands and what it has in hand, for a test to read. */
export const place = {
  path: "",
  search: new URLSearchParams(),
  scenario: {} as ReturnType<typeof useScenario>,
};

function Frame() {
  const held = useChain();
  const scenario = useScenario();
  const { pathname, search } = useLocation();
  useEffect(() => {
    Object.assign(place, { path: pathname, search: new URLSearchParams(search), scenario });
  });
  return (
    <>
      <p data-testid="chain">{held.chain ? "computed" : held.refused ? "refused" : "waiting"}</p>
      <Outlet context={held} />
    </>
  );
}

/** A page or a part of one in all it needs, at an address; other addresses show their path. */
export function open(
  children: ReactNode,
  { at = "/here", preferences = {} }: { at?: string; preferences?: Partial<Preferences> } = {},
) {
  localStorage.setItem("ironpeel.preferences", JSON.stringify(preferences));
  const path = at.split("?")[0] ?? at;
  const router = createMemoryRouter(
    [
      {
        element: (
          <ScenarioProvider>
            <Frame />
          </ScenarioProvider>
        ),
        children: [
          { path, element: children },
          { path: "*", element: <p>elsewhere</p> },
        ],
      },
    ],
    { initialEntries: [at] },
  );
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  render(
    <PreferencesProvider>
      <QueryClientProvider client={queries}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </PreferencesProvider>,
  );
  return { user: userEvent.setup(), router };
}

/** The chain has been computed for what is in hand. */
export const computed = () =>
  waitFor(() => expect(screen.getByTestId("chain").textContent).toBe("computed"));

async function get<T>(path: string): Promise<T> {
  const response = await fetch(path);
  return (await response.json()) as T;
}

/** The address of a page with a product in hand from a lot of the demo plant. */
export async function inHand(path: string, product: string, lot: string, more = "") {
  const { lots } = await get<{ lots: { id: string; code: string }[] }>("/api/v1/lots");
  const found = lots.find((one) => one.code === lot);
  if (!found) throw new Error(`${lot} is not among the newest lots`);
  return `${path}?product=${product}&lot=${found.id}${more}`;
}

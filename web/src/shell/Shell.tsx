import { lazy, Suspense, useEffect, useLayoutEffect, useState, type ReactNode } from "react";
import { Link, Outlet, useLocation, useNavigate } from "react-router";
import type { Schemas } from "../api/client";
import { Select } from "../form/Select";
import { DISPOSITION } from "./disposition";
import { useScenario, ScenarioProvider } from "../scenario/ScenarioProvider";
import { useFlourNames } from "../scenario/useFlourNames";
import { useChain, useLotsOf } from "../scenario/useChain";
import { ChainBar } from "./ChainBar";
import { NextStep } from "./FirstSteps";
import { useLive } from "../session/live";
import { useSession } from "../session/session";
import { useLeave } from "../session/station";
import { LINKS } from "./links";
import { ChangeSummary } from "./ChangeSummary";
import { Outbox } from "./Outbox";
import { usePreferences } from "../units/preferences";
import { VERDICT } from "./verdict";

const AccountDialog = lazy(() =>
  import("./dialogs").then((all) => ({ default: all.AccountDialog })),
);
const Finder = lazy(() => import("./dialogs").then((all) => ({ default: all.Finder })));
const Shortcuts = lazy(() => import("./dialogs").then((all) => ({ default: all.Shortcuts })));
const PreferencesDialog = lazy(() =>
  import("./dialogs").then((all) => ({ default: all.PreferencesDialog })),
);

/** The choice that is no lot yet. */
const BAG = "bag";

type Open = "account" | "finder" | "shortcuts" | "preferences" | null;

/** A lot with its verdict and what was decided of it. */
function lotWords({ code, verdict, status: { decision } }: Schemas["LotRow"]): string {
  const kept = decision && ["hold", "reject"].includes(decision.decision);
  return [
    [code, verdict && `${VERDICT[verdict].mark} ${VERDICT[verdict].word}`]
      .filter(Boolean)
      .join(" "),
    kept && DISPOSITION[decision.decision]?.word,
  ]
    .filter(Boolean)
    .join(", ");
}

/** The frame of every view; what is laid over it comes along. */
export function Shell({ children }: { children: ReactNode }) {
  return (
    <ScenarioProvider>
      <Frame>{children}</Frame>
    </ScenarioProvider>
  );
}

function Frame({ children }: { children: ReactNode }) {
  const [open, setOpen] = useState<Open>(null);
  const held = useChain();
  const { scenario, search, change } = useScenario();
  const { lots, usual } = useLotsOf(held.product?.flour.id).data ?? {};
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const { keys } = usePreferences().preferences;
  const { product } = held;
  const session = useSession();
  const person = session?.person;
  const leave = useLeave();

  useFlourNames();
  useLive();

  // A product without a selected lot takes its flour's usual one.
  useEffect(() => {
    if (product && !scenario.lot && usual) change({ lot: usual });
  }, [product, scenario.lot, usual, change]);

  // Before the view is painted: a key pressed as soon as it is seen is not lost.
  useLayoutEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key === "k") {
        event.preventDefault();
        return setOpen("finder");
      }
      const typing =
        event.target instanceof HTMLElement &&
        event.target.closest("input, textarea, select, [role=dialog]");
      if (typing || event.ctrlKey || event.metaKey || event.altKey || keys === "off") return;
      const link = LINKS[Number(event.key) - 1];
      if (link) void navigate({ pathname: link.path, search });
      if (event.key === "/") setOpen("finder");
      if (event.key === "?") setOpen("shortcuts");
      if (event.key === ",") setOpen("preferences");
      if (event.key === "p") void navigate({ pathname: "/plant/flours", search });
      if (event.key === "n") void navigate({ pathname: "/flour/receive", search });
      if (event.key === "[" || event.key === "]") {
        const at = lots?.findIndex((lot) => lot.id === scenario.lot) ?? -1;
        const next = lots?.[event.key === "[" ? at + 1 : at - 1];
        if (at >= 0 && next) change({ lot: next.id });
      }
      if (["/", "?"].includes(event.key)) event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [change, scenario.lot, search, lots, navigate, keys]);

  const close = () => setOpen(null);
  return (
    <div className="min-h-screen">
      <a
        href="#content"
        className="sr-only focus:not-sr-only focus:absolute focus:z-40 focus:bg-sheet focus:p-3"
      >
        To the content
      </a>
      <header className="screen-only mx-auto flex max-w-7xl flex-wrap items-center gap-x-6 gap-y-1 px-3 py-2 sm:px-6">
        <Link to={{ pathname: "/", search }} className="flex items-center gap-2">
          <img src="/peel.svg" alt="" className="h-7 w-7" />
          <span className="text-lg font-bold [font-stretch:118%]">Ironpeel</span>
        </Link>
        {product && (
          <p className="min-w-0 text-sm">
            <span className="text-iron">Product </span>
            <Link to="/" className="link font-semibold">
              {product.name}
            </Link>
            <span className="text-iron"> on {product.line.name}, lot </span>
            <Select
              label="Selected lot"
              place="hidden"
              className="font-semibold"
              value={scenario.lot ?? ""}
              none="no lot"
              options={[
                ...(held.lot && !lots?.some((lot) => lot.id === held.lot?.id)
                  ? [[held.lot.id, `${held.lot.code} · ${held.lot.flour.name}`] as const]
                  : []),
                ...(lots ?? []).map((lot) => [lot.id, lotWords(lot)] as const),
                [BAG, "a flour from a bag …"],
              ]}
              onSet={(lot) =>
                lot === BAG ? void navigate({ pathname: "/flour/bag", search }) : change({ lot })
              }
            />
          </p>
        )}
        <p className="ml-auto flex items-center gap-5 text-sm">
          <Link to={{ pathname: "/plant/flours", search }} className="link">
            Plant
          </Link>
          <button type="button" className="link" onClick={() => setOpen("finder")}>
            Find <kbd className="font-sans text-iron">/</kbd>
          </button>
          <button type="button" className="link" onClick={() => setOpen("preferences")}>
            Settings
          </button>
          <button type="button" className="link" onClick={() => setOpen("shortcuts")}>
            Shortcuts <kbd className="font-sans text-iron">?</kbd>
          </button>
          {person && session?.station ? (
            <button
              type="button"
              className="act"
              aria-label={`${person.name} is here; somebody else`}
              onClick={() => leave.mutate()}
            >
              {person.name}
            </button>
          ) : (
            person && (
              <button
                type="button"
                className="link"
                title={person.name}
                aria-label={`Account of ${person.name}`}
                onClick={() => setOpen("account")}
              >
                {person.initials}
              </button>
            )
          )}
        </p>
      </header>
      <ChainBar held={held} />
      <Outbox />
      <NextStep path={pathname} />
      {children}
      <main
        id="content"
        className="mx-auto max-w-7xl px-3 pt-5 pb-16 sm:px-6 print:max-w-none print:p-0"
      >
        <Outlet context={held} />
      </main>
      <ChangeSummary changes={held.chain && held.changes} />
      <Suspense>
        {open === "account" && <AccountDialog open onClose={close} />}
        {open === "finder" && <Finder open onClose={close} />}
        {open === "shortcuts" && <Shortcuts open onClose={close} />}
        {open === "preferences" && <PreferencesDialog open onClose={close} />}
      </Suspense>
    </div>
  );
}

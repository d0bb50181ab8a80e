import {
  createContext,
  use,
  useCallback,
  useEffect,
  useMemo,
  useState,
  type ReactNode,
} from "react";
import { useLocation, useNavigate } from "react-router";
import type { Schemas } from "../api/client";
import { readHand, writeHand, type Hand } from "./hand";

export type Draft = Schemas["EditedFormula"];

/** The dough in hand with the formula as edited, which is not in the address. */
interface State {
  search: string;
  draft: Draft | undefined;
}

interface Held {
  hand: Hand;
  draft: Draft | undefined;
  /** The state before the last change. */
  before: { hand: Hand; draft: Draft | undefined } | undefined;
  change: (change: Partial<Hand>) => void;
  edit: (draft: Draft | undefined) => void;
  /** Both at once, undone at once. */
  set: (change: Partial<Hand>, draft: Draft | undefined) => void;
  undo: () => void;
}

const Context = createContext<Held | null>(null);
const DRAFT = "ironpeel.formula-draft.2.";

const readDraft = (product: string | null): Draft | undefined => {
  const kept = product && localStorage.getItem(DRAFT + product);
  return kept ? (JSON.parse(kept) as Draft) : undefined;
};

/** Keeps the dough in hand in the address, and its changes so that they can be undone. */
export function HandProvider({ children }: { children: ReactNode }) {
  const location = useLocation();
  const navigate = useNavigate();
  const hand = useMemo(() => readHand(new URLSearchParams(location.search)), [location.search]);
  const [past, setPast] = useState<State[]>([]);
  const [drafts, setDrafts] = useState<Record<string, Draft | undefined>>({});
  const { product } = hand;
  const draft = product ? (product in drafts ? drafts[product] : readDraft(product)) : undefined;

  const keepDraft = useCallback((of: string | null, next: Draft | undefined) => {
    if (!of) return;
    if (next) localStorage.setItem(DRAFT + of, JSON.stringify(next));
    else localStorage.removeItem(DRAFT + of);
    setDrafts((all) => ({ ...all, [of]: next }));
  }, []);

  const remember = useCallback(() => {
    setPast((all) => [...all.slice(-49), { search: location.search, draft }]);
  }, [location.search, draft]);

  const set = useCallback(
    (next: Partial<Hand>, nextDraft: Draft | undefined) => {
      const search = `?${writeHand({ ...hand, ...next })}`;
      if (search === location.search && nextDraft === draft) return;
      // Choosing the lot a product starts with is no change anybody made.
      if (hand.product && hand.lot) remember();
      if (nextDraft !== draft) keepDraft(hand.product, nextDraft);
      if (search !== location.search)
        void navigate({ pathname: location.pathname, search }, { replace: !hand.lot });
    },
    [draft, hand, keepDraft, location.pathname, location.search, navigate, remember],
  );
  const change = useCallback((next: Partial<Hand>) => set(next, draft), [draft, set]);
  const edit = useCallback((next: Draft | undefined) => set({}, next), [set]);
  const undo = useCallback(() => {
    const last = past.at(-1);
    if (!last) return;
    setPast(past.slice(0, -1));
    keepDraft(readHand(new URLSearchParams(last.search)).product, last.draft);
    void navigate({ pathname: location.pathname, search: last.search });
  }, [keepDraft, location.pathname, navigate, past]);

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && event.target.matches("input, textarea");
      if (event.key === "z" && (event.ctrlKey || event.metaKey) && !event.shiftKey && !typing) {
        event.preventDefault();
        undo();
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [undo]);

  const last = past.at(-1);
  const held = useMemo(
    () => ({
      hand,
      draft,
      before: last && {
        hand: readHand(new URLSearchParams(last.search)),
        draft: last.draft,
      },
      change,
      edit,
      set,
      undo,
    }),
    [hand, draft, last, change, edit, set, undo],
  );
  return <Context value={held}>{children}</Context>;
}

export function useHand(): Held {
  const held = use(Context);
  if (!held) throw new Error("useHand is used outside its provider");
  return held;
}

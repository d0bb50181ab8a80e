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

type Lines = Schemas["LineInput"][];

/** The dough in hand with the formula's edited lines, which are not in the address. */
interface State {
  search: string;
  lines: Lines | undefined;
}

interface Held {
  hand: Hand;
  lines: Lines | undefined;
  /** The state before the last change. */
  before: { hand: Hand; lines: Lines | undefined } | undefined;
  change: (change: Partial<Hand>) => void;
  edit: (lines: Lines | undefined) => void;
  undo: () => void;
}

const Context = createContext<Held | null>(null);
const DRAFT = "ironpeel.formula-draft.";

const readDraft = (product: string | null): Lines | undefined => {
  const kept = product && localStorage.getItem(DRAFT + product);
  return kept ? (JSON.parse(kept) as Lines) : undefined;
};

/** Keeps the dough in hand in the address, and its changes so that they can be undone. */
export function HandProvider({ children }: { children: ReactNode }) {
  const location = useLocation();
  const navigate = useNavigate();
  const hand = useMemo(() => readHand(new URLSearchParams(location.search)), [location.search]);
  const [past, setPast] = useState<State[]>([]);
  const [drafts, setDrafts] = useState<Record<string, Lines | undefined>>({});
  const { product } = hand;
  const lines = product ? (product in drafts ? drafts[product] : readDraft(product)) : undefined;

  const keepDraft = useCallback((of: string | null, next: Lines | undefined) => {
    if (!of) return;
    if (next) localStorage.setItem(DRAFT + of, JSON.stringify(next));
    else localStorage.removeItem(DRAFT + of);
    setDrafts((all) => ({ ...all, [of]: next }));
  }, []);

  const remember = useCallback(() => {
    setPast((all) => [...all.slice(-49), { search: location.search, lines }]);
  }, [location.search, lines]);

  const change = useCallback(
    (next: Partial<Hand>) => {
      const search = writeHand({ ...hand, ...next });
      if (`?${search}` === location.search) return;
      // Choosing the lot a product starts with is no change anybody made.
      if (hand.product && hand.lot) remember();
      void navigate({ pathname: location.pathname, search: `?${search}` }, { replace: !hand.lot });
    },
    [hand, location.pathname, location.search, navigate, remember],
  );
  const edit = useCallback(
    (next: Lines | undefined) => {
      remember();
      keepDraft(hand.product, next);
    },
    [hand.product, keepDraft, remember],
  );
  const undo = useCallback(() => {
    const last = past.at(-1);
    if (!last) return;
    setPast(past.slice(0, -1));
    keepDraft(readHand(new URLSearchParams(last.search)).product, last.lines);
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
      lines,
      before: last && {
        hand: readHand(new URLSearchParams(last.search)),
        lines: last.lines,
      },
      change,
      edit,
      undo,
    }),
    [hand, lines, last, change, edit, undo],
  );
  return <Context value={held}>{children}</Context>;
}

export function useHand(): Held {
  const held = use(Context);
  if (!held) throw new Error("useHand is used outside its provider");
  return held;
}

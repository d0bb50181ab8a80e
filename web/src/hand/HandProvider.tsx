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
export type MethodDraft = Schemas["MethodDraft"];

/** What is edited and not yet recorded of a product: it is not in the address. */
interface Edited {
  draft?: Draft | undefined;
  method?: MethodDraft | undefined;
}

/** The dough in hand with what is edited of it. */
interface State extends Edited {
  search: string;
}

interface Held extends Edited {
  hand: Hand;
  /** The state before the last change. */
  before: (Edited & { hand: Hand }) | undefined;
  change: (change: Partial<Hand>) => void;
  edit: (draft: Draft | undefined) => void;
  editMethod: (method: MethodDraft | undefined) => void;
  /** Several at once, undone at once. */
  set: (change: Partial<Hand>, edited: Edited) => void;
  undo: () => void;
}

const Context = createContext<Held | null>(null);
const KEYS = { draft: "ironpeel.formula-draft.2.", method: "ironpeel.method-draft." } as const;

const kept = (product: string | null): Edited => {
  const read = (key: string) => {
    const text = product && localStorage.getItem(key + product);
    return text ? (JSON.parse(text) as unknown) : undefined;
  };
  return { draft: read(KEYS.draft) as Draft, method: read(KEYS.method) as MethodDraft };
};

const keep = (product: string, edited: Edited) => {
  for (const kind of ["draft", "method"] as const) {
    const value = edited[kind];
    if (value) localStorage.setItem(KEYS[kind] + product, JSON.stringify(value));
    else localStorage.removeItem(KEYS[kind] + product);
  }
};

/** Keeps the dough in hand in the address, and its changes so that they can be undone. */
export function HandProvider({ children }: { children: ReactNode }) {
  const location = useLocation();
  const navigate = useNavigate();
  const hand = useMemo(() => readHand(new URLSearchParams(location.search)), [location.search]);
  const [past, setPast] = useState<State[]>([]);
  const [edits, setEdits] = useState<Record<string, Edited>>({});
  const { product } = hand;
  const { draft, method } = useMemo(
    () => (product ? (edits[product] ?? kept(product)) : {}),
    [edits, product],
  );

  const keepEdited = useCallback((of: string | null, edited: Edited) => {
    if (!of) return;
    keep(of, edited);
    setEdits((all) => ({ ...all, [of]: edited }));
  }, []);

  const remember = useCallback(() => {
    setPast((all) => [...all.slice(-49), { search: location.search, draft, method }]);
  }, [location.search, draft, method]);

  const set = useCallback(
    (next: Partial<Hand>, edits: Edited) => {
      const edited = { draft, method, ...edits };
      const search = `?${writeHand({ ...hand, ...next })}`;
      const same = edited.draft === draft && edited.method === method;
      if (search === location.search && same) return;
      // Choosing the lot a product starts with is no change anybody made.
      if (hand.product && hand.lot) remember();
      if (!same) keepEdited(hand.product, edited);
      if (search !== location.search)
        void navigate({ pathname: location.pathname, search }, { replace: !hand.lot });
    },
    [draft, hand, keepEdited, location.pathname, location.search, method, navigate, remember],
  );
  const change = useCallback((next: Partial<Hand>) => set(next, {}), [set]);
  const edit = useCallback((next: Draft | undefined) => set({}, { draft: next }), [set]);
  const editMethod = useCallback(
    (next: MethodDraft | undefined) => set({}, { method: next }),
    [set],
  );
  const undo = useCallback(() => {
    const last = past.at(-1);
    if (!last) return;
    setPast(past.slice(0, -1));
    keepEdited(readHand(new URLSearchParams(last.search)).product, last);
    void navigate({ pathname: location.pathname, search: last.search });
  }, [keepEdited, location.pathname, navigate, past]);

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
      method,
      before: last && { ...last, hand: readHand(new URLSearchParams(last.search)) },
      change,
      edit,
      editMethod,
      set,
      undo,
    }),
    [hand, draft, method, last, change, edit, editMethod, set, undo],
  );
  return <Context value={held}>{children}</Context>;
}

export function useHand(): Held {
  const held = use(Context);
  if (!held) throw new Error("useHand is used outside its provider");
  return held;
}

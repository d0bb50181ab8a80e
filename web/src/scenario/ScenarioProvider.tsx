import {
  createContext,
  use,
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  type ReactNode,
} from "react";
import { NavigationType, useLocation, useNavigate, useNavigationType } from "react-router";
import { keep, kept, type Draft, type Edited, type MethodDraft } from "./edited";
import { useUndoKey } from "./undo";
import { wayTo } from "./underWay";
import { carried, readScenario, type Scenario } from "./scenario";

/** The selected product with what is edited of it. */
export interface Now extends Edited {
  scenario: Scenario;
}

interface State extends Now {
  /** The newest address, for what a page keeps in it beside the scenario. */
  address: string;
  /** Earlier states, the last one last. */
  past: Now[];
}

/** A value, or how it follows from the newest one. */
export type Next<T> = T | ((now: T) => T);

interface Held extends Now {
  /** The scenario as it stands in an address, with what else stands in this one. */
  search: string;
  /** The state before the last change. */
  before: Now | undefined;
  /** The newest state, whatever was rendered last. */
  newest: () => Now;
  change: (change: Partial<Scenario> | ((scenario: Scenario) => Partial<Scenario>)) => void;
  edit: (draft: Next<Draft | undefined>) => void;
  editMethod: (method: Next<MethodDraft | undefined>) => void;
  /** Several at once, undone at once. */
  set: (change: Partial<Scenario>, edited: Edited) => void;
  undo: () => void;
  /** Puts every state of the edited formula right, as no change of anybody's. */
  amend: (right: (draft: Draft) => Draft) => void;
  /** Sets what a page keeps in the address beside the scenario; null takes it out. */
  show: (
    params:
      Record<string, string | null> | ((now: URLSearchParams) => Record<string, string | null>),
  ) => void;
}

const Context = createContext<Held | null>(null);
const STEPS = 50;

const searchOf = (scenario: Scenario, address = "") => {
  const search = carried(scenario, address).toString();
  return search && `?${search}`;
};

const follows = <T,>(next: Next<T>, now: T): T =>
  typeof next === "function" ? (next as (now: T) => T)(now) : next;

/** With our own navigations: what they carry to the address is in the state already. */
const OURS = { byEdit: true };
const isOurs = (state: unknown) => (state as typeof OURS | null)?.byEdit === true;

/**
 * Keeps the selected product and its changes, so that they can be undone, and writes the scenario to the
 * address. The state is here and the address follows it: an edit builds on the newest state, even
 * where the router has not shown the one before.
 */
export function ScenarioProvider({ children }: { children: ReactNode }) {
  const location = useLocation();
  const arrived = useNavigationType();
  const navigate = useNavigate();
  const [state, show] = useState<State>(() => start(location.search, []));
  const held = useRef(state);
  const put = useCallback((next: State) => {
    held.current = next;
    show(next);
  }, []);

  // Somebody followed a link or went back: the address leads. Not so where it follows us.
  const ours = arrived !== NavigationType.Pop && isOurs(location.state);
  const seen = useRef(location);
  useEffect(() => {
    // The address it began with was read already, and a view may have written to it since.
    if (seen.current === location) return;
    seen.current = location;
    if (ours) return;
    const now = held.current;
    const next = start(location.search, now.past);
    const moved = searchOf(next.scenario) !== searchOf(now.scenario);
    if (moved) put(next);
    else if (now.address !== location.search) put({ ...now, address: location.search });
  }, [location, ours, put]);

  /** Writes it to the address, or to that of the page somebody is on the way to. */
  const write = useCallback(
    (scenario: Scenario, search: string, replace = false) => {
      const way = wayTo();
      if (way) void navigate({ ...way, search: searchOf(scenario, way.search) });
      // Without a path it is a change of where the router is by then.
      else void navigate({ search }, { replace, state: OURS });
    },
    [navigate],
  );
  const newest = useCallback((): Now => held.current, []);
  const apply = useCallback(
    (to: (now: Now) => Partial<Now>) => {
      const { past, address, ...now } = held.current;
      const change = to(now);
      const product = change.scenario?.product ?? null;
      const other = change.scenario && product !== now.scenario.product ? kept(product) : {};
      const next = { ...now, ...other, ...change };
      const moved = searchOf(next.scenario) !== searchOf(now.scenario);
      // What a page keeps of one product says nothing of another.
      const search = searchOf(
        next.scenario,
        next.scenario.product === now.scenario.product ? address : "",
      );
      const edited = "draft" in change || "method" in change;
      if (!moved && next.draft === now.draft && next.method === now.method) return;
      // Choosing the lot a product starts with is no change anybody made.
      const changed = now.scenario.product && now.scenario.lot;
      const earlier = changed ? [...past.slice(1 - STEPS), now] : past;
      put({ ...next, address: search, past: earlier });
      if (edited && next.scenario.product) keep(next.scenario.product, next);
      if (moved) write(next.scenario, search, !now.scenario.lot);
    },
    [write, put],
  );
  const amend = useCallback(
    (right: (draft: Draft) => Draft) => {
      const amended = <S extends Now>(state: S): S => {
        const draft = state.draft && right(state.draft);
        return draft === state.draft ? state : { ...state, draft };
      };
      const now = held.current;
      const next = amended(now);
      if (next === now && now.past.every((one) => amended(one) === one)) return;
      put({ ...next, past: now.past.map(amended) });
      if (next.scenario.product) keep(next.scenario.product, next);
    },
    [put],
  );
  const undo = useCallback(() => {
    const { past, scenario, address } = held.current;
    const last = past.at(-1);
    if (!last) return;
    const search = searchOf(
      last.scenario,
      last.scenario.product === scenario.product ? address : "",
    );
    put({ ...last, address: search, past: past.slice(0, -1) });
    if (last.scenario.product) keep(last.scenario.product, last);
    if (searchOf(last.scenario) !== searchOf(scenario)) write(last.scenario, search);
  }, [write, put]);

  useUndoKey(state.past.length > 0 ? undo : undefined);

  const value = useMemo(
    (): Held => ({
      scenario: state.scenario,
      draft: state.draft,
      method: state.method,
      search: `?${carried(state.scenario, ours ? state.address : location.search)}`,
      before: state.past.at(-1),
      newest,
      change: (change) =>
        apply(({ scenario }) => ({
          scenario: { ...scenario, ...(typeof change === "function" ? change(scenario) : change) },
        })),
      edit: (draft) => apply((now) => ({ draft: follows(draft, now.draft) })),
      editMethod: (method) => apply((now) => ({ method: follows(method, now.method) })),
      set: (change, edited) =>
        apply(({ scenario }) => ({ scenario: { ...scenario, ...change }, ...edited })),
      undo,
      amend,
      show: (params) => {
        const search = carried(held.current.scenario, held.current.address);
        const next = typeof params === "function" ? params(search) : params;
        for (const [key, value] of Object.entries(next)) {
          if (value === null) search.delete(key);
          else search.set(key, value);
        }
        put({ ...held.current, address: `?${search}` });
        write(held.current.scenario, `?${search}`, true);
      },
    }),
    [state, ours, location.search, newest, apply, undo, amend, put, write],
  );
  return <Context value={value}>{children}</Context>;
}

function start(search: string, past: Now[]): State {
  const scenario = readScenario(new URLSearchParams(search));
  return { scenario, ...kept(scenario.product), address: search, past };
}

export function useScenario(): Held {
  const held = use(Context);
  if (!held) throw new Error("useScenario is used outside its provider");
  return held;
}

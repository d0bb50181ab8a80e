import { store, stored } from "../storage/stored";
import { usePlantWords } from "./usePlantWords";
import { createContext, use, useEffect, useMemo, useState, type ReactNode } from "react";

/** How one person wants to see things. Kept in the browser. */
export interface Preferences {
  temperature: "C" | "F";
  mass: "kg" | "lb";
  mark: "." | ",";
  /** Decimals beyond the usual ones. */
  more: 0 | 1;
  clock: "24" | "12";
  /** Whether a key alone goes somewhere. */
  keys: "on" | "off";
  theme: "day" | "night";
}

const KEY = "ironpeel.preferences";
export const USUAL: Preferences = {
  temperature: "C",
  mass: "kg",
  mark: ".",
  more: 0,
  clock: "24",
  keys: "on",
  theme: "day",
};

interface Held {
  preferences: Preferences;
  prefer: (change: Partial<Preferences>) => void;
}

const Context = createContext<Held>({ preferences: USUAL, prefer: () => {} });

export function PreferencesProvider({ children }: { children: ReactNode }) {
  // What a person chose, and no more: the rest is the plant's.
  const [chosen, set] = useState<Partial<Preferences>>(() => stored(KEY) ?? {});
  const { temperature, mass } = usePlantWords();
  const preferences = useMemo(
    (): Preferences => ({ ...USUAL, temperature, mass, ...chosen }),
    [temperature, mass, chosen],
  );
  useEffect(() => {
    store(KEY, chosen);
    document.documentElement.dataset.theme = preferences.theme;
  }, [chosen, preferences.theme]);
  const held = useMemo(
    () => ({
      preferences,
      prefer: (change: Partial<Preferences>) => set((now) => ({ ...now, ...change })),
    }),
    [preferences],
  );
  return <Context value={held}>{children}</Context>;
}

export const usePreferences = () => use(Context);

/**
 * What this browser keeps between visits. Something kept that cannot be read counts as nothing
 * kept: it costs one draft, not a page. A full disk costs the keeping, not the edit.
 */
export function stored<T>(key: string): T | undefined {
  try {
    const text = localStorage.getItem(key);
    const value = text === null ? undefined : (JSON.parse(text) as T);
    return value && typeof value === "object" ? value : undefined;
  } catch {
    return undefined;
  }
}

/** Keeps a value, or forgets it; whether there was room for it. */
export function store(key: string, value: object | undefined): boolean {
  try {
    if (value === undefined) localStorage.removeItem(key);
    else localStorage.setItem(key, JSON.stringify(value));
    return true;
  } catch {
    return false;
  }
}

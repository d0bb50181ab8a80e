/** The lowest and highest of some numbers, with a margin; never of no height. */
export function spread(values: number[], margin = 0.08): [number, number] {
  const low = Math.min(...values);
  const high = Math.max(...values);
  const pad = (high - low || Math.abs(high) || 1) * margin;
  return [low - pad, high + pad];
}

/** At most so many of a long series, evenly, with its last. */
export function thinned<T>(values: T[], most: number): T[] {
  const step = Math.ceil(values.length / most);
  return step <= 1 ? values : values.filter((_, at) => at % step === 0 || at === values.length - 1);
}

/** As much of a name as there is room for. */
export function fitted(name: string, width: number): string {
  const letters = Math.floor(width / 6.4);
  return name.length <= letters ? name : `${name.slice(0, letters - 1)}…`;
}

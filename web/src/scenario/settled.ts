/**
 * Asks about the newest state; asks again if it was edited while the answer was under way, so that
 * the answer builds on every edit.
 */
export async function settled<State, HeatSolution>(
  newest: () => State,
  ask: (state: State) => Promise<HeatSolution>,
): Promise<HeatSolution> {
  for (;;) {
    const state = newest();
    const found = await ask(state);
    if (newest() === state) return found;
  }
}

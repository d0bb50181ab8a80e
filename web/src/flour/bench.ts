/** A lot on the bench, as it is set. */
export interface BenchLot {
  lotId: string;
  share: number;
  /** Of a tonne; none where it is not known. */
  price: number | null;
}

export interface BenchDraft {
  lots: BenchLot[];
  targets: Record<string, { min: string; max: string }>;
}

export const BENCH_KEY = "ironpeel.blend";
export const beginBench = (kept?: Partial<BenchDraft>): BenchDraft => ({
  lots: [],
  targets: {},
  ...kept,
});

/** A lot on the bench, as it is set. */
export interface BlendLot {
  lotId: string;
  share: number;
  /** Of a tonne; none where it is not known. */
  price: number | null;
}

export interface BlendDraft {
  lots: BlendLot[];
  targets: Record<string, { min: string; max: string }>;
}

export const BENCH_KEY = "ironpeel.blend";
export const beginBlend = (kept?: Partial<BlendDraft>): BlendDraft => ({
  lots: [],
  targets: {},
  ...kept,
});

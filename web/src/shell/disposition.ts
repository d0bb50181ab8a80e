/** What a person can decide of a lot: the word for it, and for doing it. */
export const DISPOSITION: Record<string, { word: string; does: string }> = {
  release: { word: "released", does: "Release" },
  release_with_note: { word: "released with note", does: "Release with note" },
  hold: { word: "held", does: "Hold" },
  reject: { word: "rejected", does: "Reject" },
};

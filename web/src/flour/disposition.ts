/** What a person can decide of a lot: the word for it, and for doing it. */
export const DECISION: Record<string, { word: string; does: string }> = {
  accept: { word: "accepted", does: "Accept" },
  accept_with_note: { word: "accepted with a note", does: "Accept with a note" },
  hold: { word: "held", does: "Hold" },
  reject: { word: "rejected", does: "Reject" },
};

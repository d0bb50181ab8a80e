import type { Schemas } from "../api/client";

/** What each role is called, and what it is for. */
export const ROLES: Record<Schemas["PersonRole"], { name: string; does: string }> = {
  technologist: { name: "technologist", does: "everything of the job" },
  floor: { name: "floor", does: "sheets, stock and readings" },
  visitor: { name: "visitor", does: "reads" },
  administrator: { name: "administrator", does: "people and settings" },
};

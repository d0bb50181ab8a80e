import type { Schemas } from "../api/client";

/** Whether a stage comes after the oven, where no line waits for a dough any more. */
export const isAfterOven = ({ role }: { role: Schemas["StageRole"] }): boolean =>
  role === "cool" || role === "slicing";

/**
 * While a question is under way the last answer stays, where the first parts of the key are the
 * same: never one lot's figures under another's name.
 */
export const lastWhile =
  (...same: unknown[]) =>
  <T>(last: T | undefined, query?: { queryKey: readonly unknown[] }): T | undefined =>
    same.every((part, at) => query?.queryKey[at] === part) ? last : undefined;

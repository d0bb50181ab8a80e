import { asProblem, type Schemas } from "./client";

const MOST_MB = 16;
const NO_ANSWER = "The server does not answer; try again in a moment";

/** Why a file cannot be read, and at which field where it is one's. */
export interface Unread {
  message: string;
  errors?: Schemas["Problem"]["errors"];
}

/** What the server reads off a file, or why it cannot. */
export async function readFile<T>(
  path: string,
  query: Record<string, string>,
  file: File,
): Promise<{ read: T } | Unread> {
  if (file.size > MOST_MB * 1024 * 1024)
    return { message: `${file.name} is over ${MOST_MB} MB, the most that is taken` };
  const address = `${path}?${new URLSearchParams(query).toString()}`;
  const response = await fetch(address, { method: "POST", body: file }).catch(() => undefined);
  if (!response) return { message: NO_ANSWER };
  const read: unknown = await response.json().catch(() => undefined);
  if (response.ok) return { read: read as T };
  const { detail, errors } = asProblem(read, response.status);
  return { message: `${file.name}: ${detail}`, errors };
}

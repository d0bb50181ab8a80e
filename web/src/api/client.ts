import createClient from "openapi-fetch";
import { fetchConfirmed } from "./confirmation";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Problem = Schemas["Problem"];

/** An answer that was not what was asked for, in the server's words. */
export class Refused extends Error {
  readonly problem: Problem;

  constructor(problem: Problem) {
    super(problem.detail);
    this.problem = problem;
  }

  /** What is wrong with a field, if it is that field. */
  at(field: string): string | undefined {
    return this.problem.errors?.find((error) => error.field === field)?.message;
  }
}

/** Whether asking again would be answered the same: a refusal is, a server that cannot now is not. */
export const isFinal = (error: unknown) => error instanceof Refused && error.problem.status < 500;

export const api = createClient<paths>({ baseUrl: "/", fetch: fetchConfirmed });

/** The data of an answer, or the problem thrown. */
export async function answer<T>(
  asked: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  const { data, error, response } = await asked;
  if (data !== undefined) return data;
  throw new Refused(asProblem(error, response.status));
}

/** Waits for what answers with nothing, or the problem thrown. */
export async function done(asked: Promise<{ error?: unknown; response: Response }>) {
  const { error, response } = await asked;
  if (!response.ok) throw new Refused(asProblem(error, response.status));
}

export function asProblem(error: unknown, status: number): Problem {
  if (error && typeof error === "object" && "detail" in error) return error as Problem;
  return { status, title: "No answer", detail: "the server did not answer in words" };
}

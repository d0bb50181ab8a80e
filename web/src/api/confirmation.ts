import type { components } from "./schema";

type Problem = components["schemas"]["Problem"];

type Ask = () => Promise<boolean>;

let asking: Ask | undefined;
let asked: Promise<boolean> | undefined;

/** Who asks for the password again, where one is wanted. */
export function setAsking(ask: Ask | undefined) {
  asking = ask;
}

/** Several requests at once ask once. */
function confirmed() {
  asked ??= (asking?.() ?? Promise.resolve(false)).finally(() => {
    asked = undefined;
  });
  return asked;
}

const wantsPassword = (problem: Problem) =>
  problem.errors?.some(({ field }) => field === "current") ?? false;

/** Sends a request; one that wants the password given again is sent anew once it was. */
export async function fetchConfirmed(request: Request): Promise<Response> {
  const again = request.clone();
  const response = await fetch(request);
  if (response.status !== 403) return response;
  const problem = (await response.clone().json()) as Problem;
  return wantsPassword(problem) && (await confirmed()) ? fetch(again) : response;
}

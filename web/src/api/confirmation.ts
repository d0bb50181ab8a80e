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

/** Whether a refusal wants the password; what stands between may refuse without words. */
const wantsPassword = async (response: Response) => {
  const problem = (await response.json().catch(() => ({}))) as Partial<Problem>;
  return problem.errors?.some(({ field }) => field === "current") ?? false;
};

/** Sends a request; one that wants the password given again is sent anew once it was. */
export async function fetchConfirmed(request: Request): Promise<Response> {
  const again = request.clone();
  const response = await fetch(request);
  const goesOn =
    response.status === 403 && (await wantsPassword(response.clone())) && (await confirmed());
  return goesOn ? fetch(again) : response;
}

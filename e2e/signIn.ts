import { request, type FullConfig } from "@playwright/test";

/** Where who is signed in is kept for the journeys, by the part of the e-mail address before the @. */
export const stateOf = (who: string) => `results/.signed-in/${who}.json`;

/** Signs everybody of the demo plant in once; journeys begin signed in. */
export default async function signIn(config: FullConfig) {
  const { baseURL } = config.projects[0]?.use ?? {};
  const page = await fetch(baseURL ?? "");
  if (!page.ok) throw new Error(`${baseURL} is no front end: ${page.status} ${await page.text()}`);
  for (const who of ["technologist", "floor", "visitor", "admin"]) {
    const here = await request.newContext({ baseURL });
    const answer = await here.post("/api/v1/session", {
      data: { email: `${who}@skerrow.example`, password: "skerrow-demo" },
    });
    if (!answer.ok()) throw new Error(`${who}: ${await answer.text()}`);
    await here.storageState({ path: stateOf(who) });
    await here.dispose();
  }
}

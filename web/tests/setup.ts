import "fake-indexeddb/auto";
import { Blob as NodeBlob, File as NodeFile } from "node:buffer";
import { cleanup, configure } from "@testing-library/react";
import { afterEach } from "vitest";

/** The plant the components ask: started by the Cargo test, or the one on the usual address. */
const PLANT = process.env.IRONPEEL_URL ?? "http://127.0.0.1:7420";
const at = (input: RequestInfo | URL) =>
  typeof input === "string" && input.startsWith("/") ? PLANT + input : input;

const sent = globalThis.fetch;

/** A technologist of the demo plant, signed in as the sign-in page does it. */
const signedIn = await sent(`${PLANT}/api/v1/session`, {
  method: "POST",
  headers: { "content-type": "application/json" },
  body: JSON.stringify({ email: "technologist@skerrow.example", password: "skerrow-demo" }),
});
if (!signedIn.ok) throw new Error(`nobody is signed in: ${await signedIn.text()}`);
const cookie = signedIn.headers.getSetCookie().map((one) => one.split(";")[0]);

/** A browser sends its cookies, and says which page it is. */
function own(init: RequestInit | undefined) {
  const headers = new Headers(init?.headers);
  headers.set("cookie", cookie.join("; "));
  headers.set("origin", PLANT);
  return { ...init, headers };
}

/** A browser knows where a page came from; here it is said. Its signals are no use to Node. */
class PageRequest extends Request {
  constructor(input: RequestInfo | URL, init?: RequestInit) {
    const rest = own(init);
    delete rest.signal;
    super(at(input), rest);
  }
}

globalThis.Request = PageRequest;
globalThis.fetch = (input, init) =>
  input instanceof Request ? sent(input, init) : sent(at(input), own(init));

// Files as the server is sent them, not as the simulated page knows them.
Object.assign(globalThis, { File: NodeFile, Blob: NodeBlob });

// A machine that does much else answers late, and right.
configure({ asyncUtilTimeout: 30_000 });

globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};
Element.prototype.getAnimations ??= () => [];

afterEach(() => {
  cleanup();
  localStorage.clear();
});

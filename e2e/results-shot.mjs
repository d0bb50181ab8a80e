// usage: node shot.mjs path out [wait-ms]
import { chromium } from "@playwright/test";
const [path, out, ...rest] = process.argv.slice(2);
const b = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-gpu", "--disable-quic", "--disable-background-networking"] });
const p = await b.newPage({ viewport: { width: 1280, height: 800 } });
p.on("pageerror", (e) => console.log("ERR", e.message));
p.on("console", (m) => m.type() === "error" && console.log("CON", m.text()));
await p.goto("http://127.0.0.1:7420" + path);
await p.waitForLoadState("networkidle");
for (const step of rest) { if (/^\d+$/.test(step)) await p.waitForTimeout(+step); else await eval(step); }
await p.screenshot({ path: out, fullPage: process.env.FULL === "1" });
await b.close();

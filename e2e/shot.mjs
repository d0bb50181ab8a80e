// throwaway: node shot.mjs out.png path [w h] [scriptfile]
import { chromium } from "@playwright/test";
const [out, path, w = "1280", h = "800", ...acts] = process.argv.slice(2);
const b = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox","--disable-gpu","--disable-quic","--disable-background-networking"] });
const p = await b.newPage({ viewport: { width: +w, height: +h } });
p.on("console", (m) => ["error","warning"].includes(m.type()) && console.log("CONSOLE", m.text()));
p.on("pageerror", (e) => console.log("PAGEERROR", e.message));
await p.goto("http://127.0.0.1:7480" + path); await p.waitForLoadState("networkidle");
for (const a of acts) { await eval(`(async()=>{${a}})()`); await p.waitForTimeout(400); }
await p.screenshot({ path: out }); await b.close();

// Packs the built files once, so that the server need not do it for every request.
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync, gzipSync } from "node:zlib";

for (const entry of readdirSync("dist", { recursive: true, withFileTypes: true })) {
  if (!entry.isFile() || !/\.(html|js|css|svg|json)$/.test(entry.name)) continue;
  const path = join(entry.parentPath ?? entry.path, entry.name);
  const bytes = readFileSync(path);
  writeFileSync(`${path}.br`, brotliCompressSync(bytes));
  writeFileSync(`${path}.gz`, gzipSync(bytes, { level: 9 }));
}

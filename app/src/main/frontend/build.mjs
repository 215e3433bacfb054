// Bundles styles and scripts into the application's static files, and the service worker with the list of what it keeps.
import { execFileSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { resolve } from "node:path";
import { build } from "esbuild";

const out = resolve("../../../target/classes/static");
const engine = resolve("../../../../field-engine/target/js/field-engine.js");
if (!existsSync(engine)) throw new Error("the field engine is not built yet: run mvn from the project's root");
mkdirSync("build", { recursive: true });
rmSync(out + "/assets", { recursive: true, force: true });
mkdirSync(out + "/assets", { recursive: true });
execFileSync("node_modules/.bin/tailwindcss", ["-i", "src/style.css", "-o", "build/style.css", "--minify"], { stdio: "inherit" });

const common = { bundle: true, minify: true, target: ["es2022"], logLevel: "warning", legalComments: "linked" };
await build({
  ...common,
  entryPoints: [{ in: "src/desk.js", out: "desk" }, { in: "src/day.js", out: "day" }, { in: "src/site.css", out: "style" }],
  chunkNames: "[name]-[hash]",
  assetNames: "[name]-[hash]",
  outdir: out + "/assets",
  format: "esm",
  splitting: true,
  alias: { "field-engine": engine },
  loader: { ".woff2": "file", ".woff": "empty" },
});
const files = readdirSync(out + "/assets").filter((f) => !f.endsWith(".map") && !f.endsWith(".txt"));
const hash = createHash("sha256");
for (const f of files.sort()) hash.update(readFileSync(out + "/assets/" + f));
hash.update(readFileSync("../resources/templates/day.html"));
await build({
  ...common,
  entryPoints: ["src/sw.js"],
  outfile: out + "/sw.js",
  format: "iife",
  define: { BUILD: JSON.stringify(hash.digest("hex").slice(0, 12)), FILES: JSON.stringify(files.filter((f) => !f.startsWith("desk")).map((f) => "/assets/" + f)) },
});

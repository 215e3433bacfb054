// Bundles styles and scripts into the application's static files, and the service worker with the list of what it keeps.
import { execFileSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { basename, resolve } from "node:path";
import { gzipSync } from "node:zlib";
import { build } from "esbuild";

const out = resolve("../../../target/classes/static");
const engine = resolve("../../../../field-engine/target/js/field-engine.js");
if (!existsSync(engine)) throw new Error("the field engine is not built yet: run mvn from the project's root");
mkdirSync("build", { recursive: true });
rmSync(out + "/assets", { recursive: true, force: true });
mkdirSync(out + "/assets", { recursive: true });
execFileSync("node_modules/.bin/tailwindcss", ["-i", "src/style.css", "-o", "build/style.css", "--minify"], { stdio: "inherit" });

// the icons of the library, with the words by which they are found
const library = "node_modules/@rapideditor/temaki/";
const named = Object.entries(JSON.parse(readFileSync(library + "data/icons.json", "utf8"))).filter(([id]) => id !== "temaki");
writeFileSync(
  "build/icons.json",
  JSON.stringify(
    named.map(([id, { groups }]) => {
      const words = id
        .replaceAll(/[_-]/g, " ")
        .replace(/(\d+)$/, " $1")
        .replaceAll(/\s+/g, " ");
      return {
        id,
        label: words[0].toUpperCase() + words.slice(1),
        words: words + " " + groups.join(" "),
        groups,
        svg: readFileSync(`${library}icons/${id}.svg`, "utf8")
          .replace(/<\?xml[^>]*>\s*/, "")
          .replaceAll(/\s*\n\s*/g, " ")
          .trim(),
      };
    }),
  ),
);

// the keys of the catalogue, so that no script asks for a text that is not there
const texts = JSON.parse(readFileSync("../resources/messages/en.json", "utf8"));
const server = texts["@server"].split(" ");
const keys = Object.keys(texts).filter((k) => !server.includes(k.split(".")[0]));
writeFileSync("build/messages.d.ts", `export type MessageKey =\n${keys.map((k) => `  | ${JSON.stringify(k)}`).join("\n")};\n`);

const common = { bundle: true, minify: true, target: ["es2022"], logLevel: "warning", legalComments: "linked" };
const { metafile } = await build({
  ...common,
  metafile: true,
  entryPoints: [
    { in: "src/desk.js", out: "desk" },
    { in: "src/day.js", out: "day" },
    { in: "src/site.css", out: "style" },
  ],
  chunkNames: "[name]-[hash]",
  assetNames: "[name]-[hash]",
  outdir: out + "/assets",
  format: "esm",
  splitting: true,
  alias: { "field-engine": engine },
  loader: { ".woff2": "file", ".woff": "empty", ".json": "file" },
});
// before the body of a desk page, so no module
await build({ ...common, entryPoints: ["src/keys.js"], outdir: out + "/assets", format: "iife" });
// what the day book needs: its script with all that it imports, the style and the fonts
const outputs = Object.fromEntries(Object.entries(metafile.outputs).map(([path, o]) => [basename(path), o]));
const needed = new Set();
const need = (file) => {
  if (needed.has(file) || !outputs[file]) return;
  needed.add(file);
  for (const i of outputs[file].imports) need(basename(i.path));
};
need("day.js");
need("style.css");
const files = readdirSync(out + "/assets").filter((f) => needed.has(f) || f.endsWith(".woff2") || /^countries-.*\.json$/.test(f));
const hash = createHash("sha256");
for (const f of files.sort()) hash.update(readFileSync(out + "/assets/" + f));
hash.update(readFileSync("../resources/templates/day.html"));
hash.update(readFileSync("../resources/messages/en.json"));
await build({
  ...common,
  entryPoints: ["src/sw.js"],
  outfile: out + "/sw.js",
  format: "iife",
  define: { BUILD: JSON.stringify(hash.digest("hex").slice(0, 12)), FILES: JSON.stringify(files.map((f) => "/assets/" + f)) },
});

// what the day book weighs, by what it is made of
const kB = (n) => `${Math.round(n / 1000)} kB`;
const part = (input) => (input.includes("field-engine") ? "rules" : (/node_modules\/((?:@[^/]+\/)?[^/]+)/.exec(input)?.[1] ?? "own"));
const parts = {};
let gzipped = 0;
for (const file of needed) {
  if (!file.endsWith(".js")) continue;
  gzipped += gzipSync(readFileSync(`${out}/assets/${file}`)).length;
  for (const [input, { bytesInOutput }] of Object.entries(outputs[file].inputs))
    parts[part(input)] = (parts[part(input)] ?? 0) + bytesInOutput;
}
const heaviest = Object.entries(parts)
  .sort((a, b) => b[1] - a[1])
  .filter(([, n]) => n > 2000);
console.log(`scripts of the day book: ${kB(gzipped)} gzipped; before that ${heaviest.map(([name, n]) => `${name} ${kB(n)}`).join(", ")}`);
// no module stands in two bundles
const where = new Map();
for (const [file, o] of Object.entries(outputs))
  if (file.endsWith(".js"))
    for (const [input, { bytesInOutput }] of Object.entries(o.inputs))
      if (bytesInOutput > 0) where.set(input, [...(where.get(input) ?? []), file]);
const twice = [...where].filter(([, files]) => files.length > 1);
if (twice.length) throw new Error("in two bundles: " + twice.map(([input]) => input).join(", "));

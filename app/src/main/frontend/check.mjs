// What is checked of the front end without a page: formatting, lint, types, and the tests of modules.
import { spawnSync } from "node:child_process";
import { readdirSync } from "node:fs";

const bin = (name) => `node_modules/.bin/${name}`;
const tests = readdirSync("test").filter((f) => f.endsWith(".test.mjs"));
const steps = [
  [
    bin("prettier"),
    ["--config", ".prettierrc.json", "--check", "--log-level", "warn", "src", "test", "check", "types", "*.mjs", "../resources/templates"],
  ],
  [bin("eslint"), ["."]],
  [bin("tsc"), ["-p", "."]],
  [process.execPath, ["--test", ...tests.map((f) => "test/" + f)]],
];
let failed = false;
for (const [command, options] of steps) if (spawnSync(command, options, { stdio: "inherit" }).status !== 0) failed = true;
process.exit(failed ? 1 : 0);

// Installs the npm packages, only when the lock file has changed since the last time.
import { execFileSync } from "node:child_process";
import { existsSync, readFileSync, writeFileSync } from "node:fs";

const stamp = "node_modules/.lock-stamp";
const lock = readFileSync("package-lock.json", "utf8");
if (existsSync(stamp) && readFileSync(stamp, "utf8") === lock) process.exit(0);
execFileSync("npm", ["ci", "--no-audit", "--no-fund"], { stdio: "inherit" });
writeFileSync(stamp, lock);

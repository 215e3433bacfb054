import assert from "node:assert/strict";
import { test } from "node:test";
import { useCatalogue } from "../src/shell/say.js";
import { asTyped, decimalSign, mayPut, plain } from "../src/shell/typed.js";

test("a number stands in its box with the reader's decimal sign, and both signs are read", () => {
  useCatalogue({}, { style: ["de"] });
  assert.equal(decimalSign(), ",");
  assert.equal(asTyped(1234.5), "1234,5");
  assert.equal(plain(" 1234,5 "), "1234.5");
  useCatalogue({}, { style: ["en"] });
  assert.equal(asTyped(1234.5), "1234.5");
  assert.equal(asTyped("not a number."), "not a number.");
  assert.equal(asTyped(null), "");
});

test("a box is left alone only while somebody has typed in it; one that is merely entered gets what arrives", () => {
  const box = { value: "" };
  assert.equal(mayPut(box, "", box), true, "entered by the Tab key, nothing typed: a name that the server proposes stands in it");
  box.value = "my own";
  assert.equal(mayPut(box, "", box), false, "typed in");
  assert.equal(mayPut(box, "", {}), true, "left");
});

import assert from "node:assert/strict";
import { test } from "node:test";
import { found } from "../src/desk/look/finding.js";

const all = [
  { words: "street lamp light", groups: ["street"] },
  { words: "tree broad", groups: ["nature"] },
  { words: "manhole water", groups: ["street"] },
];

test("icons are found by their words, by what people call them, and by group", () => {
  assert.deepEqual(found(all, "tree", ""), [all[1]]);
  assert.deepEqual(found(all, "Drain", ""), [all[2]]);
  assert.deepEqual(found(all, "", "street"), [all[0], all[2]]);
  assert.deepEqual(found(all, "lamp street", "nature"), []);
});

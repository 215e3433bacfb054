import assert from "node:assert/strict";
import { test } from "node:test";
import { MOST_STEPS, Undo } from "../src/shell/undo.js";

test("goes back step by step, and no later change reaches into a step", () => {
  const undo = new Undo();
  assert.equal(undo.can, false);
  assert.equal(undo.back(), undefined);
  const now = { name: "a", list: [1] };
  undo.note(now);
  now.name = "b";
  now.list.push(2);
  undo.note(now);
  assert.deepEqual(undo.back(), { name: "b", list: [1, 2] });
  assert.deepEqual(undo.back(), { name: "a", list: [1] });
  assert.equal(undo.can, false);
});

test("the oldest steps are forgotten", () => {
  const undo = new Undo();
  for (let i = 0; i < MOST_STEPS + 5; i++) undo.note(i);
  let last;
  for (let was = undo.back(); was !== undefined; was = undo.back()) last = was;
  assert.equal(last, 5);
});

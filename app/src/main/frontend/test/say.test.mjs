import assert from "node:assert/strict";
import { test } from "node:test";
import { inWords, say, useCatalogue, wordsInText } from "../src/shell/say.js";

const texts = { stops: "{done, number} of {of, plural, one {# stop} other {# stops}} done", plain: "can't", quoted: "it''s {n}" };

test("plurals follow the text, numbers the reader", () => {
  useCatalogue(texts, { style: ["en"] });
  assert.equal(say("stops", { done: 1, of: 1 }), "1 of 1 stop done");
  assert.equal(say("stops", { done: 1200, of: 2400 }), "1,200 of 2,400 stops done");
  useCatalogue(texts, { style: ["de"] });
  assert.equal(say("stops", { done: 1200, of: 2400 }), "1.200 of 2.400 stops done");
});

test("apostrophes stand for themselves", () => {
  useCatalogue(texts, { style: ["en"] });
  assert.equal(say("plain"), "can't");
  assert.equal(say("quoted", { n: "7" }), "it's 7");
});

test("a key without a text is an error", () => {
  useCatalogue(texts);
  assert.throws(() => say("nowhere"), /no text for “nowhere”/);
});

test("what core tells is put into words, answers to a question named say are not", () => {
  useCatalogue(texts, { style: ["en"] });
  const told = inWords('{"why":{"say":"quoted","with":{"n":7}},"rows":[{"say":"hello"},{"say":"toString"}]}');
  assert.deepEqual(told, { why: "it's 7", rows: [{ say: "hello" }, { say: "toString" }] });
});

test("labels tell values in the reader's style, and somebody's own words as they stand", () => {
  useCatalogue({ "style.fixed": "{n}", "style.day": "{day}" }, { style: ["de"] });
  assert.equal(wordsInText('{"say":"style.fixed","with":{"n":-0.4,"decimals":2}}'), "-0,40");
  assert.equal(wordsInText('{"say":"style.day","with":{"day":"2001-03-23"}}'), "23.03.2001");
  assert.equal(wordsInText('{"say":"","with":{"text":"{\\"say\\":\\"style.day\\"}"}}'), '{"say":"style.day"}');
  for (const own of ['{"say":', '{"say":"nowhere"}', "23 gates"]) assert.equal(wordsInText(own), own);
});

import assert from "node:assert/strict";
import { test } from "node:test";
import { viewOf } from "../src/sheet/known.js";

test("what changed is put into what is known, and what did not stays the same object", () => {
  const answers = [
    {
      caption: "OS-1",
      sections: [
        {
          questions: [
            { name: "a", value: 1 },
            { name: "b", value: 2 },
          ],
          rows: [{ id: "r", questions: [{ name: "a", row: "r", value: 3 }] }],
        },
      ],
    },
    { turn: 1, caption: "OS-1", sections: [{ questions: ["a", { name: "b", value: 9 }], rows: [{ id: "r", questions: ["a"] }] }] },
  ];
  const view = viewOf({ changes: () => JSON.stringify(answers.shift()) });
  const [first, then] = [view(), view()];
  assert.equal(then.sections[0].questions[0], first.sections[0].questions[0]);
  assert.equal(then.sections[0].questions[1].value, 9);
  assert.equal(then.sections[0].rows[0].questions[0].value, 3);
});

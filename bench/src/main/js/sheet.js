// Draws the sheet of an open visit after each of many answers; gives the median and the 95th percentile in milliseconds: of what changed and its drawing by script, and until the browser has laid it out.
import { viewOf } from "../../../../app/src/main/frontend/src/sheet/known.js";
import { answering, makeSheet } from "../../../../app/src/main/frontend/src/sheet/sheet.js";
import { useCatalogue } from "../../../../app/src/main/frontend/src/shell/say.js";
import texts from "../../../../app/src/main/resources/messages/en.json";

export function drawing(visit, answers) {
  useCatalogue(texts);
  const box = document.body.appendChild(document.createElement("div"));
  const view = viewOf(visit);
  const sheet = makeSheet(box, answering(visit, (deed) => deed()));
  sheet.draw(view());
  const drawn = [];
  const laidOut = [];
  for (let i = 0; i < answers; i++) {
    visit.set("q" + (i % 30) * 10, String(i % 50));
    const from = performance.now();
    sheet.draw(view());
    drawn.push(performance.now() - from);
    box.getBoundingClientRect();
    laidOut.push(performance.now() - from);
  }
  const of = (all) => {
    all.sort((a, b) => a - b);
    return [all[Math.floor(all.length / 2)], all[Math.floor(all.length * 0.95)]];
  };
  return { drawn: of(drawn.slice(20)), laidOut: of(laidOut.slice(20)), questions: box.querySelectorAll("[data-question]").length };
}

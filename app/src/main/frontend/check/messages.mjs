// Texts on standard input, one JSON {text, args, style} a line, to what the browser's side of the catalogue makes of each.
import { readFileSync } from "node:fs";
import { say, useCatalogue } from "../src/shell/say.js";

for (const line of readFileSync(0, "utf8").split("\n").filter(Boolean)) {
  const { text, args, style } = JSON.parse(line);
  useCatalogue({ text }, { style: [style] });
  console.log(JSON.stringify(say("text", args)));
}

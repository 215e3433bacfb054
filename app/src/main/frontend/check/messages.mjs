// Lines of JSON on standard input, to what the browser's side of the catalogue makes of each: {text, args, style}, or
// {told, style} for what core tells, in English.
import { readFileSync } from "node:fs";
import { say, useCatalogue, words } from "../src/shell/say.js";

const english = JSON.parse(readFileSync(new URL("../../resources/messages/en.json", import.meta.url), "utf8"));

for (const line of readFileSync(0, "utf8").split("\n").filter(Boolean)) {
  const { text, args, told, style } = JSON.parse(line);
  useCatalogue(told ? english : { text }, { style: [style] });
  console.log(JSON.stringify(told ? words(told) : say("text", args)));
}

// What can be done with several questions that are chosen.
import { pick } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { html, nothing } from "../../shell/view.js";

/** @param {any} state */
export function several(state) {
  const n = state.chosen.length;
  if (n < 2) return nothing;
  const set = (property, value) => state.edit({ op: "set", questions: state.chosen, property, value });
  const sections = state.form.sections.map((s, i) => [String(i), s.title || say("desk.form.sectionN", { n: i + 1 })]);
  const put = (to) => state.edit({ op: "put", questions: state.chosen, section: Number(to), before: "" });
  return html`<div class="told flex flex-wrap gap-2 items-center" id="chosen" role="status">
    <strong>${say("desk.form.chosen", { n })}</strong>
    <button type="button" id="section-of" @click=${() => state.sectionOfChosen()}>${say("desk.form.sectionOf")}</button>
    <button type="button" id="block-of" @click=${() => state.blockOfChosen()}>${say("desk.form.blockOf")}</button>
    ${pick("", say("desk.form.moveInto"), sections, put)}
    <button type="button" @click=${() => set("need", "needed")}>${say("desk.form.makeNeeded")}</button>
    <button type="button" @click=${() => set("need", "free")}>${say("desk.form.makeFree")}</button>
    <button type="button" id="copy-chosen" @click=${() => state.copyChosen()}>${say("do.copy")}</button>
    <button type="button" id="remove-chosen" @click=${() => state.removeChosen()}>${say("do.remove")}</button>
    <button type="button" @click=${() => state.choose([])}>${say("desk.form.chooseNone")}</button>
  </div>`;
}

// What is written beside features, at which scales they are drawn, and looks as files.
import { fileButton, giveFile, numberBox, pick } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { typed } from "../../shell/typed.js";
import { html, nothing } from "../../shell/view.js";

/** @param {any} state */
export function labels(state) {
  const { look, may, fields } = state;
  const set = (how) => state.change(how);
  const scale = (label, value, put, id) =>
    html`<label
      >${label}${numberBox(value || "", put, { min: 0, class: "w-[6rem]", placeholder: say("desk.look.any"), id, disabled: !may })}</label
    >`;
  return html`<details class="card mt-3" ?open=${look.label.template !== ""}>
    <summary class="font-semibold cursor-pointer">${say("desk.look.labelAndScale")}</summary>
    <p class="mt-2">
      <label class="label" for="label-template">${say("desk.look.beside")}</label
      ><textarea
        class="w-full code"
        rows="2"
        id="label-template"
        placeholder="{tag}"
        ?disabled=${!may}
        .value=${typed(look.label.template)}
        @change=${(e) => set((l) => (l.label.template = e.target.value))}
      ></textarea>
    </p>
    <div class="knobs">
      ${pick(
        say("desk.look.putIn"),
        say("desk.look.aField"),
        fields.map((f) => [f.name, f.label]),
        (name) => set((l) => (l.label.template += `{${name}}`)),
      )}
      <label
        >${say("desk.look.height")}${numberBox(look.label.px, (n) => set((l) => (l.label.px = n)), { min: 6, max: 40, disabled: !may })}px</label
      >
      ${scale(say("desk.look.writtenTo"), look.label.farthest, (n) => set((l) => (l.label.farthest = n)))}
    </div>
    <div class="knobs mt-2">
      ${scale(say("desk.look.drawnFrom"), look.nearest, (n) => set((l) => (l.nearest = n)), "look-nearest")}
      ${scale(say("desk.look.drawnTo"), look.farthest, (n) => set((l) => (l.farthest = n)), "look-farthest")}
    </div>
  </details>`;
}

/** @param {any} state */
export function files(state) {
  const own = () => giveFile("look.json", "application/json", JSON.stringify(state.look, null, 1));
  const sld = async () => {
    const xml = await state.sld();
    if (xml) giveFile("look.sld", "application/vnd.ogc.sld+xml", xml);
  };
  const bringIn = fileButton(say("desk.look.bringIn"), ".json,application/json", (f) => state.bringIn(f), { id: "look-in" });
  return html`<details class="card mt-3">
    <summary class="font-semibold cursor-pointer">${say("desk.look.files")}</summary>
    <div class="knobs mt-2">
      <button type="button" @click=${own}>${say("desk.look.ownFile")}</button>
      <button type="button" @click=${sld}>${say("desk.look.asSld")}</button>
      ${state.may ? bringIn : nothing}
    </div>
  </details>`;
}

// Making layers: one card for each, its kind, its fields, the area where its features are expected.
import { options } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { getJson, post } from "../../shell/server.js";
import { drawn, element, html, nothing, repeat } from "../../shell/view.js";
import { systemField } from "../systems.js";
import { areaMap } from "./area.js";
import { fieldsEditor } from "./editor.js";

/** @type {[string, import("../../shell/say.js").MessageKey][]} */
const KINDS = [
  ["point", "desk.make.points"],
  ["line", "desk.make.lines"],
  ["polygon", "desk.make.polygons"],
  ["table", "desk.make.table"],
];

const text = (of, name, said, more = {}) =>
  html`<input
    class=${"w-full " + (more.class ?? "")}
    name=${name}
    maxlength=${more.maxlength ?? nothing}
    list=${more.list ?? nothing}
    placeholder=${more.placeholder ?? nothing}
    ?required=${more.required}
    autocomplete="off"
    aria-label=${said}
    value=${of[name]}
    @input=${(e) => (of[name] = e.target.value)}
  />`;

function cardView(card, { many, leaveOut }) {
  const { n, plan } = card;
  const out = html`<button type="button" class="plain" @click=${leaveOut}>${say("desk.make.leaveOut")}</button>`;
  const clear = html`<button type="button" class="plain" @click=${() => card.map.clear()}>${say("desk.make.drawAnew")}</button>`;
  return html`<section class="card mb-4">
    <div class="flex justify-between">
      <h2 class="mb-2">${say("desk.make.layerN", { n })}</h2>
      ${many ? out : nothing}
    </div>
    <div class="beside narrow-second">
      <div class="grid gap-2 content-start">
        <label class="label"
          >${say("desk.make.name")}${text(plan, "name", say("desk.make.nameOf", { n }), { maxlength: 120, required: true })}</label
        >
        <label class="label"
          >${say("desk.make.holds")}
          <select aria-label=${say("desk.make.kindOf", { n })} @change=${(e) => (plan.kind = e.target.value)}>
            ${options(
              KINDS.map(([v, key]) => /** @type {[string, string]} */ ([v, say(key)])),
              plan.kind,
            )}
          </select>
          <span class="quiet"> ${say("desk.make.parts")}</span></label
        >
        <label class="label"
          >${say("desk.make.summary")}${text(plan, "summary", say("desk.make.summaryOf", { n }), { maxlength: 1000 })}</label
        >
        <label class="label"
          >${say("desk.make.tags")}${text(plan, "tags", say("desk.make.tagsOf", { n }), { maxlength: 300, placeholder: say("desk.make.tagsLike") })}</label
        >
        <label class="label"
          >${say("desk.make.system")}${text(plan, "system", say("desk.make.systemOf", { n }), { class: "system", list: "systems" })}</label
        >
        <span class="quiet system-name"></span>
      </div>
      <div>
        <p class="label">${say("desk.make.area")}</p>
        <p class="quiet">${say("desk.make.areaHow")}</p>
        ${card.areaBox}${plan.area ? clear : nothing}
      </div>
    </div>
    <h3 class="mt-3 mb-1">${say("desk.make.fields")}</h3>
    ${card.editor}
  </section>`;
}

/** @param {HTMLElement} box */
export async function makePage(box) {
  const { project = "", system = "" } = box.dataset;
  const [basemap, others] = await Promise.all([getJson(`/api/p/${project}/basemap`), getJson(`/api/p/${project}/layer-names`)]);
  /** @type {any[]} */
  const cards = [];
  let failure = "";
  let numbered = 0;
  /** One after the other: asked for twice at once, the second would be numbered like the first. */
  let adding = Promise.resolve();

  async function begin() {
    const n = ++numbered;
    const areaBox = element(html`<div class="map h-[240px]" tabindex="0" aria-label=${say("desk.make.areaMap")}></div>`);
    const plan = { name: "", summary: "", tags: "", system, kind: "point", area: null };
    const editor = document.createElement("div");
    const fields = await fieldsEditor(editor, { project, schema: { kind: "point", fields: [] }, others });
    const card = { n, plan, areaBox, editor, fields, map: /** @type {any} */ (null) };
    cards.push(card);
    draw.now();
    card.map = areaMap(areaBox, basemap, (area) => {
      plan.area = area;
      draw();
    });
    systemField(/** @type {HTMLInputElement} */ (editor.closest("section")?.querySelector(".system")), `/api/p/${project}/systems`);
  }
  const add = () => (adding = adding.then(begin));
  const leaveOut = (card) => () => {
    cards.splice(cards.indexOf(card), 1);
    draw();
  };
  const planOf = ({ plan, fields }) => {
    const { kind, ...rest } = plan;
    return { ...rest, schema: { ...fields.schema(), kind } };
  };
  async function make() {
    failure = "";
    draw();
    try {
      const { made } = await post(`/api/p/${project}/layers`, { layers: cards.map(planOf) });
      location.href = made.length === 1 ? `/p/${project}/layers/${made[0]}` : `/p/${project}/layers`;
    } catch (e) {
      failure = e.message;
      draw();
      box.querySelector(".problem")?.scrollIntoView({ block: "nearest" });
    }
  }
  const draw = drawn(
    box,
    () =>
      html`<datalist id="systems"></datalist>
        ${repeat(
          cards,
          (c) => c,
          (c) => cardView(c, { many: c !== cards[0], leaveOut: leaveOut(c) }),
        )}
        <p class="problem" role="alert" ?hidden=${!failure}>${failure}</p>
        <p class="flex gap-2">
          <button type="button" class="main" id="make-layers" @click=${make}>${say("desk.make.make", { n: cards.length })}</button>
          <button type="button" @click=${add}>${say("desk.make.another")}</button>
        </p>`,
  );
  await add();
  box.dataset.ready = "true";
}

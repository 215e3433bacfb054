// What nobody knew: begun with a form, as what an entry of its layer's legend says, what was begun lately first.
import { entrySaid } from "../../map/legend.js";
import { url } from "../../map/look.js";
import { loadEngine } from "../../shell/engine.js";
import { say } from "../../shell/say.js";
import { ALLOWS } from "../../shell/states.js";
import { html, nothing } from "../../shell/view.js";
import { book, fileForm } from "../book.js";
import { formFiles } from "../form-file.js";
import { show, showView } from "../frame.js";
import * as store from "../store.js";
import { openNew } from "./open.js";

/** So many that were begun lately are offered first. */
const LATELY = 4;

/** @typedef {{form: string, layer: string, preset: any, called: string, title: string, symbol: string}} Kind */

/** The way to what is new, where the round allows it. @param {any} pack @param {string} [look] classes of the button */
export const newButton = (pack, look = "main w-full justify-center") =>
  pack.plan.round.allows === ALLOWS.NEW
    ? html`<p>
        <button type="button" class=${look} id="new-asset" @click=${() => chooseNew(pack)}>${say("day.new")}</button>
      </p>`
    : nothing;

/** What can be begun with a form: each entry of its layer's legend that sets something, and what is none of them. @returns {Kind[]} */
function kindsOf(engine, pack, form) {
  const layer = pack.layers.find((l) => l.layer === form.layer);
  const one = (called, preset, symbol) => ({ form: form.id, layer: form.layer, title: form.title, called, preset, symbol });
  const plain = one(layer?.name ?? "", {}, "");
  if (!layer?.look || layer.schema.kind === "table") return [plain];
  const plan = JSON.parse(engine.painting(JSON.stringify(layer.look), JSON.stringify(layer.schema)).plan());
  const set = plan.entries.map((e, k) => one(entrySaid(plan, k, layer.name), e.preset, e.symbol));
  return plan.by === "one" ? set : [...set.filter((k) => Object.keys(k.preset).length), { ...plain, called: say("map.everythingElse") }];
}

/** What can be begun with a form that was opened from a file. @param {import("../form-file.js").FormFile} f @returns {Kind} */
const ofFile = ({ hash, layer, title }) => ({
  form: fileForm(hash),
  layer,
  preset: {},
  called: title,
  title: say("day.formFile.ofFile"),
  symbol: "",
});

const keyOf = (k) => k.form + JSON.stringify(k.preset);

/** @param {any} pack */
export async function chooseNew(pack) {
  const engine = await loadEngine();
  const files = (await formFiles(pack.round)).map((f) => ofFile(f));
  const all = [...pack.plan.forms.flatMap((f) => kindsOf(engine, pack, f)), ...files];
  const last = "lately:" + book.person;
  const keys = /** @type {string[]} */ ((await store.get("meta", last)) ?? []);
  const lately = keys.flatMap((key) => all.filter((k) => keyOf(k) === key)).slice(0, LATELY);
  const begin = async (kind) => {
    await store.put("meta", [keyOf(kind), ...keys.filter((k) => k !== keyOf(kind))].slice(0, 3 * LATELY), last);
    return openNew(pack, kind);
  };
  const row = (kind) =>
    html`<li>
      <button type="button" class="stop" data-new=${kind.called} @click=${() => begin(kind)}>
        ${kind.symbol ? html`<img src=${url(kind.symbol)} alt="" />` : html`<span class="w-10"></span>`}<span
          ><strong>${kind.called}</strong><span class="quiet">${kind.title}</span></span
        >
      </button>
    </li>`;
  const list = (id, kinds) =>
    html`<ul class="flex flex-col gap-2" id=${id}>
      ${kinds.map(row)}
    </ul>`;
  showView(
    html`<h2>${say("day.newTitle")}</h2>
      ${all.length === 0 ? html`<p>${say("day.noForms")}</p>` : nothing}
      ${
        lately.length && all.length > LATELY
          ? html`<h3 class="label">${say("day.lately")}</h3>
              ${list("new-lately", lately)}`
          : nothing
      }
      ${list("new-kinds", all)}
      <p><button type="button" class="plain" @click=${() => show("stops")}>${say("day.backToStops")}</button></p>`,
  );
}

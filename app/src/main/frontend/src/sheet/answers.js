// The part of a sheet in which one question is answered, by its kind. It decides nothing: it shows the view's value and says what people did.
import { say } from "../shell/say.js";
import { asTyped, plain, typed } from "../shell/typed.js";
import { html, live, nothing } from "../shell/view.js";
import { reference } from "./reference.js";
import { sought } from "./sought.js";

/** Kinds that are answered by a tap, so that an answer can only be taken away by an act of its own. */
export const TAPPED = ["yes_no", "choice", "grade", "choices", "ranked"];
/** So many codes stand as buttons; more come in a list unless the form says otherwise. */
const MOST_BUTTONS = 8;
/** So many stand in a list; more are searched. */
const MOST_LISTED = 60;

/** How codes that stand as buttons are laid out. @type {Record<string, string>} */
const SHAPES = { "side by side": "choices in-line", bar: "choices bar", compact: "choices compact" };

const list = (q) => (Array.isArray(q.value) ? q.value : []);
const codes = (q) => q.codes.map((c) => [c.code, c.label, c.picture]);

/** What a question's answer is drawn as. */
const KINDS = {
  read: () => nothing,
  picture: (q, id, act) => {
    const there = q.picture && act.picture?.(q.picture);
    return there ? reference(q.picture, q.label, act, "reference large") : html`<p class="quiet">${say("sheet.noPicture")}</p>`;
  },
  yes_no: (q, id, act) =>
    choices(
      q,
      id,
      [
        ["true", say("sheet.yes")],
        ["false", say("sheet.no")],
      ],
      (c) => String(q.value) === c,
      act,
    ),
  choice: oneOf,
  grade: oneOf,
  choices: (q, id, act) => many(q, id, act),
  ranked: (q, id, act) => {
    const at = (c) => (list(q).includes(c) ? `${list(q).indexOf(c) + 1}. ` : "");
    return choices(q, id, codes(q), (c) => list(q).includes(c), act, at);
  },
  counter,
  long_text: (q, id, act) =>
    html`<textarea
      id=${id}
      rows=${q.lines ?? 3}
      placeholder=${q.placeholder ?? ""}
      .value=${typed(q.value ?? "")}
      @input=${(e) => act.set(q.name, e.target.value, q.row)}
    ></textarea>`,
  date: (q, id, act) => [dated(q, id, "date", act), misfit(q)],
  time: (q, id, act) => dated(q, id, "time", act),
  whole: (q, id, act) => (q.as === "stepper" ? counter(q, id, act) : measured(q, id, act)),
  decimal: measured,
  duration: measured,
  photo: photos,
};
for (const later of ["point", "line", "area", "sketch", "signature", "sound", "file"])
  KINDS[later] = (q, id) =>
    html`<output class="q-fixed" id=${id}>${q.value ? q.shown : "—"}</output> <span class="quiet">${say("sheet.notHereYet")}</span>`;

/** The answer of a question; `act` hears what people do. */
export function answer(q, id, act) {
  if (q.fixed && !["read", "picture", "photo"].includes(q.type)) return html`<output class="q-fixed" id=${id}>${q.shown || "—"}</output>`;
  return (KINDS[q.type] ?? text)(q, id, act);
}

function text(q, id, act) {
  return html`<input
      id=${id}
      type="text"
      autocomplete="off"
      placeholder=${q.placeholder ?? ""}
      .value=${typed(asTyped(q.value))}
      @input=${(e) => act.set(q.name, e.target.value || null, q.row)}
    />${unitOf(q)}`;
}

function dated(q, id, type, act) {
  return html`<input
    id=${id}
    type=${type}
    .value=${live(q.value ?? "")}
    @change=${(e) => act.set(q.name, e.target.value || null, q.row)}
  />`;
}

function oneOf(q, id, act) {
  if (q.as !== "list" && (q.as || q.codes.length <= MOST_BUTTONS)) return choices(q, id, codes(q), (c) => String(q.value) === c, act);
  if (q.codes.length > MOST_LISTED) return sought(q, id, act);
  return html`<select id=${id} @change=${(e) => act.set(q.name, e.target.value || null, q.row)}>
    <option value="">—</option>
    ${q.codes.map((c) => html`<option value=${c.code} .selected=${live(String(q.value) === c.code)}>${c.label}</option>`)}
  </select>`;
}

/** Many of a list: of a long one those that are chosen stand, others are searched. */
function many(q, id, act) {
  const isOn = (c) => list(q).includes(c);
  if (q.codes.length <= MOST_LISTED) return choices(q, id, codes(q), isOn, act);
  return [
    sought(q, id, act),
    choices(
      q,
      id + "-chosen",
      codes(q).filter(([c]) => isOn(c)),
      isOn,
      act,
    ),
  ];
}

function unitOf(q) {
  const unit = q.type === "duration" ? say("unit.min") : q.unit;
  return unit ? html`<span class="q-unit">${unit}</span>` : nothing;
}

function number(q, id, act) {
  return html`<input
    id=${id}
    type="text"
    class=${q.type === "counter" || q.as === "stepper" ? "number counted" : "number"}
    inputmode=${q.type === "decimal" ? "decimal" : "numeric"}
    autocomplete="off"
    placeholder=${q.placeholder ?? ""}
    .value=${typed(asTyped(q.value))}
    @input=${(e) => act.set(q.name, plain(e.target.value) || null, q.row)}
  />`;
}

function measured(q, id, act) {
  return [number(q, id, act), unitOf(q), range(q)];
}

function counter(q, id, act) {
  const n = Number(q.value ?? 0);
  const [least, most] = [Number(q.from_value ?? (q.type === "counter" ? 0 : -Infinity)), Number(q.to_value ?? Infinity)];
  const step = (by, sign, said) =>
    html`<button
      type="button"
      class="choice"
      aria-label=${said}
      ?disabled=${by < 0 ? n + by < least : n + by > most}
      @click=${() => act.set(q.name, n + by, q.row)}
    >
      ${sign}
    </button>`;
  return [
    step(-1, "−", say("sheet.oneLess", { label: q.label })),
    number(q, id, act),
    step(1, "+", say("sheet.oneMore", { label: q.label })),
    unitOf(q),
    range(q),
  ];
}

/** The range of a number, said beside its box. */
function range(q) {
  const [from, to] = [asTyped(q.from_value), asTyped(q.to_value)];
  if (!from && !to) return nothing;
  const words = !from ? say("sheet.atMost", { to }) : !to ? say("sheet.atLeast", { from }) : say("sheet.fromTo", { from, to });
  return html`<span class="quiet">${words}</span>`;
}

/** A date field can't show text that is no date; the text stands beside it instead of vanishing. */
function misfit(q) {
  return q.value && !/^\d{4}-\d{2}-\d{2}$/.test(q.value) ? html`<span class="code">${q.shown}</span>` : nothing;
}

function choices(q, id, all, isOn, act, before = (_) => "") {
  const shape = SHAPES[q.as] ?? (q.type === "grade" && !q.as ? SHAPES["side by side"] : "choices");
  const tap = (code, label) => act.tap(q.name, code, q.row, Array.isArray(q.value) && q.confirmed && isOn(code) ? label : "");
  return html`<div class=${shape} role="group" aria-labelledby=${id + "-label"} id=${id}>
    ${all.map(
      ([code, label, picture]) =>
        html`<button type="button" class="choice" data-code=${code} aria-pressed=${String(isOn(code))} @click=${() => tap(code, label)}>
          ${reference(picture, "", act, "reference of-code")}${before(code)}${label}
        </button>`,
    )}
  </div>`;
}

function photos(q, id, act) {
  const ids = list(q);
  const more = !q.most || ids.length < q.most;
  return [more ? taking(q, id, act, ids.length > 0) : nothing, html`<div class="shots">${ids.map((p) => shot(q, p, act))}</div>`];
}

function taking(q, id, act, again) {
  if (!act.addPhoto) return html`<span class="quiet">${say("sheet.photosOutdoors")}</span>`;
  const take = (e) => e.target.files[0] && act.addPhoto(q.name, e.target.files[0], q.row);
  return html`<div>
    <input type="file" id=${id} accept="image/*" capture="environment" class="sr-only" @change=${take} />
    <label for=${id} class="button">${again ? say("sheet.anotherPhoto") : say("sheet.takePhoto")}</label>
  </div>`;
}

function shot(q, photo, act) {
  const known = act.photo?.(photo) ?? {};
  const remove = () => act.removePhoto(q.name, photo, q.row);
  return html`<figure data-photo=${photo}>
    ${known.url ? html`<img src=${known.url} alt=${say("sheet.photoOf", { label: q.label })} />` : nothing}
    <figcaption>
      ${known.note ?? ""}
      ${act.removePhoto ? html`<button type="button" class="plain" @click=${remove}>${say("do.remove")}</button>` : nothing}
    </figcaption>
  </figure>`;
}

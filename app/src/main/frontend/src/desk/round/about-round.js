// Beside the planner's map: which forms, the way and its hours, who goes, what is said of the round.
import { choose } from "../../shell/controls.js";
import { bytes, metres } from "../../shell/format.js";
import { packParts } from "../../shell/pack-size.js";
import { say } from "../../shell/say.js";
import { ALLOWS } from "../../shell/states.js";
import { fixed } from "../../shell/styles.js";
import { html, live, nothing } from "../../shell/view.js";
import { changePictures } from "./note-pictures.js";
import { measurePack } from "./outlook.js";
import { letter } from "./plan-map.js";

/** @typedef {import("./plan.js").Plan} Plan */

/** @param {Plan} plan */
export function formsPart(plan) {
  return html`<fieldset id="round-forms">
    <legend class="label">${say("desk.round.forms")}</legend>
    ${plan.planning.forms.map(
      (f) =>
        html`<label class="flex gap-2 items-center"
          ><input type="checkbox" value=${f.id} .checked=${live(plan.forms.includes(f.id))} @change=${() => plan.turnForm(f.id)} /><span
            >${f.title}
            <span class="quiet"
              >${plan.layerName(f.layer)},
              ${say("desk.round.edition", { n: f.edition })}${f.minutes ? ", " + say("desk.round.minutes", { n: f.minutes }) : ""}</span
            ></span
          ></label
        >`,
    )}
  </fieldset>`;
}

const hours = (h) => say("desk.round.hours", { h: h < 10 ? fixed(h, 1) : String(Math.round(h)) });

/** @param {Plan} plan @param {import("./outlook.js").Outlook} outlook */
export function wayPart(plan, outlook) {
  const { travel, ways, split } = plan;
  const begins = travel.start ? "place" : "";
  const ends = travel.back ? "back" : travel.end ? "place" : "";
  const setStart = (v) => (v ? plan.set({ tool: "start" }) : plan.setTravel({ start: null, back: false }));
  const setEnd = (v) => {
    if (v === "place") return plan.set({ tool: "end" });
    return plan.setTravel({ end: null, back: v === "back" });
  };
  const many = plan.people.length > 1;
  return html`<section id="round-way">
    <h2 class="label">${say("desk.round.way")}</h2>
    <div class="flex gap-3 flex-wrap items-end">
      ${choose(
        say("desk.round.begins"),
        begins,
        [
          ["", say("desk.round.anywhere")],
          ["place", say("desk.round.placeOnMap")],
        ],
        setStart,
        { id: "begins" },
      )}
      ${choose(
        say("desk.round.ends"),
        ends,
        [
          ["", say("desk.round.anywhere")],
          ...(travel.start ? [/** @type {[string, string]} */ (["back", say("desk.round.backAgain")])] : []),
          ["place", say("desk.round.placeOnMap")],
        ],
        setEnd,
        { id: "ends" },
      )}
      <label
        >${say("desk.round.speed")}<span class="flex items-center gap-1"
          ><input
            type="number"
            class="w-20"
            id="speed"
            min="0.1"
            max="300"
            step="any"
            .value=${live(String(travel.kmh))}
            @change=${(e) => plan.setTravel({ kmh: Number(e.target.value) })}
          />${say("desk.round.kmh")}</span
        ></label
      >
    </div>
    <div class="flex gap-2 flex-wrap my-2">
      <button
        type="button"
        id="shortest"
        ?disabled=${plan.busy || plan.stops.size < 2 || plan.tooMany}
        @click=${() => outlook.findWay(false)}
      >
        ${say("desk.round.shortest")}
      </button>
      <button
        type="button"
        id="split"
        ?disabled=${plan.busy || !many || plan.stops.size < 2 || plan.stops.size > plan.planning.most}
        title=${many ? nothing : say("desk.round.splitNeeds")}
        @click=${() => outlook.findWay(true)}
      >
        ${many ? say("desk.round.splitOver", { n: plan.people.length }) : say("desk.round.split")}
      </button>
    </div>
    <ul id="ways">
      ${ways.map(
        (w, i) =>
          html`<li>
            ${split ? html`<strong>${letter(i)} · ${w.people.join(", ")}</strong>: ` : nothing}${
              split ? say("desk.round.stops", { n: w.stops.length }) + " · " : nothing
            }${metres(w.lengthM)}
            · ${hours(w.hours)}
          </li>`,
      )}
    </ul>
  </section>`;
}

/** @param {Plan} plan */
function people(plan) {
  return html`<fieldset id="round-people">
    <legend class="label">${say("desk.round.people")}</legend>
    ${plan.planning.people.map(
      (p) =>
        html`<label class="inline-flex gap-2 items-center me-3"
          ><input type="checkbox" value=${p} .checked=${live(plan.people.includes(p))} @change=${() => plan.turnPerson(p)} />${p}</label
        >`,
    )}
    <p class="quiet text-sm">
      ${plan.people.length === 0 ? say("desk.round.anyone") : plan.people.length > 1 && !plan.split ? say("desk.round.together") : ""}
    </p>
  </fieldset>`;
}

/** How large the pack is that devices take out. @param {Plan} plan */
export function packPart(plan) {
  return html`<section class="card" id="plan-pack">
    ${
      plan.pack
        ? html`<h2 class="label">${say("desk.round.pack", { size: bytes(plan.pack.bytes) })}</h2>
            ${packParts(plan.pack.parts)}${plan.split ? html`<p class="quiet">${say("desk.round.packOfFirst")}</p>` : nothing}`
        : html`<button type="button" id="measure-pack" ?disabled=${!plan.ready || plan.busy} @click=${() => measurePack(plan)}>
            ${say("desk.round.measurePack")}
          </button>`
    }
  </section>`;
}

/** Where what is no stop may be visited. @param {Plan} plan */
function area(plan) {
  return html`<div class="flex gap-2 flex-wrap items-center" id="round-area">
    <span>${plan.area ? say("desk.round.inArea") : say("desk.round.noArea")}</span>
    <button
      type="button"
      id="draw-area"
      aria-pressed=${String(plan.tool === "area")}
      @click=${() => plan.set({ tool: "area", asking: "" })}
    >
      ${plan.area ? say("desk.round.drawAreaAnew") : say("desk.round.drawArea")}
    </button>
    ${plan.area ? html`<button type="button" class="plain" @click=${() => plan.setArea(null)}>${say("desk.round.dropArea")}</button>` : nothing}
  </div>`;
}

/** @param {Plan} plan */
export function aboutPart(plan) {
  const { typed } = plan;
  const text = (name) => (e) => plan.type({ [name]: e.target.value });
  /** @type {[string, string][]} */
  const allows = [
    [ALLOWS.STOPS, say("desk.round.allowsStops")],
    [ALLOWS.ANY, say("desk.round.allowsAny")],
    [ALLOWS.NEW, say("desk.round.allowsNew")],
  ];
  return html`<section class="flex flex-col gap-2" id="round-about">
    ${people(plan)}
    <label class="label" for="name">${say("desk.round.name")}</label
    ><input type="text" class="w-full" id="name" required maxlength="120" .value=${live(typed.name)} @input=${text("name")} />
    <label class="label" for="note">${say("desk.round.note")}</label
    ><textarea class="w-full" id="note" rows="2" maxlength="1000" .value=${live(typed.note)} @input=${text("note")}></textarea>
    ${changePictures(plan, typed.pictures, (pictures) => plan.type({ pictures }), { id: "pictures", label: say("desk.round.addPicture") })}
    <div class="grid grid-cols-2 gap-3">
      <label
        >${say("desk.round.starts")}<input type="date" class="w-full" id="starts" .value=${live(typed.starts)} @input=${text("starts")}
      /></label>
      <label>${say("desk.round.due")}<input type="date" class="w-full" id="due" .value=${live(typed.due)} @input=${text("due")} /></label>
    </div>
    ${choose(say("desk.round.allows"), typed.allows, allows, (v) => plan.type({ allows: v }), { id: "allows" })}
    ${
      typed.allows === ALLOWS.STOPS
        ? nothing
        : html`${area(plan)}<label
              >${say("desk.round.expected")}<input
                type="number"
                class="w-28"
                id="expected"
                min="0"
                .value=${live(typed.expected)}
                @input=${text("expected")}
            /></label>`
    }
    <label class="flex items-center gap-2"
      ><input
        type="checkbox"
        name="tellsPosition"
        .checked=${live(typed.tellsPosition)}
        @change=${(e) => plan.type({ tellsPosition: e.target.checked })}
      /><span>${say("desk.round.tellsPosition")}</span></label
    >
  </section>`;
}

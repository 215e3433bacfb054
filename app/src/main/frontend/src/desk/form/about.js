// What is said of a form as a whole: purpose, time, season, review; what travels with it; pictures brought in by their names.
import { check, fileButton, options, textBox } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { postFile } from "../../shell/server.js";
import { html, nothing } from "../../shell/view.js";

const labelled = (id, said, box, more = nothing) =>
  html`<p>
    <label class="label" for=${id}>${said}</label>${box} ${more === nothing ? nothing : html`<span class="quiet block">${more}</span>`}
  </p>`;

/** @param {any} state */
export function about(state) {
  const s = state.form.settings ?? {};
  const set = (setting, value) => state.edit({ op: "settings", setting, value });
  const number = (setting, said, unit, more) => {
    const put = (e) => set(setting, e.target.value === "" ? null : Number(e.target.value));
    const box = html`<span class="flex gap-2 items-center"
      ><input type="number" min="0" step="any" size="7" id=${"a-" + setting} .value=${s[setting] ?? ""} @change=${put} /><span
        >${unit}</span
      ></span
    >`;
    return labelled("a-" + setting, said, box, more);
  };
  return html`<div id="about" class="grid gap-4 md:grid-cols-2 items-start">
    <section class="card grid gap-3">
      <h2>${say("desk.about.form")}</h2>
      ${labelled(
        "a-purpose",
        say("desk.about.purpose"),
        html`<textarea
          id="a-purpose"
          class="w-full"
          rows="2"
          maxlength="2000"
          .value=${s.purpose ?? ""}
          @change=${(e) => set("purpose", e.target.value)}
        ></textarea>`,
      )}
      ${number("plannedMinutes", say("desk.about.minutes"), say("unit.min"), say("desk.about.minutesWhy"))} ${season(s, set)}
      ${number("expectedVisits", say("desk.about.expected"), say("desk.about.visits"), say("desk.about.expectedWhy"))}
      <fieldset class="grid gap-1">
        <legend class="label">${say("desk.about.review")}</legend>
        ${review(s, set, "desk", say("desk.about.byPerson"))} ${review(s, set, "itself", say("desk.about.byItself"))}
      </fieldset>
      ${caption(state, s, set)} ${number("photoPixels", say("desk.about.photos"), say("desk.about.pixels"), say("desk.about.photosWhy"))}
      ${number("accuracyM", say("desk.about.accuracy"), "m", say("desk.about.accuracyWhy"))}
      ${number("publishAfterMinutes", say("desk.about.publish"), say("unit.min"), say("desk.about.publishWhy"))}
    </section>
    <div class="grid gap-4">${guidance(state)} ${pictures(state)}</div>
  </div>`;
}

function review(s, set, value, said) {
  return html`<label class="flex gap-2 items-center"
    ><input
      type="radio"
      name="review"
      value=${value}
      .checked=${(s.review ?? "desk") === value}
      @change=${() => set("review", value)}
    />${said}</label
  >`;
}

/** Days of a year as people choose them: month and day. */
function season(s, set) {
  const months = [...Array(12).keys()].map((m) => [
    String(m + 1).padStart(2, "0"),
    new Intl.DateTimeFormat(document.documentElement.lang || "en", { month: "long", timeZone: "UTC" }).format(
      new Date(Date.UTC(2024, m, 1)),
    ),
  ]);
  const put = (end, part, value) => {
    const now = s.season ?? { from: "01-01", to: "12-31" };
    const [m, d] = now[end].split("-");
    const day = part === "month" ? d : String(Math.max(1, Math.min(31, Number(value) || 1))).padStart(2, "0");
    const month = part === "month" ? value : m;
    const last = new Date(Date.UTC(2024, Number(month), 0)).getUTCDate();
    const clean = `${month}-${String(Math.min(Number(day), last)).padStart(2, "0")}`;
    set("season", { ...now, [end]: clean });
  };
  const end = (which, said) => {
    const [m, d] = s.season[which].split("-");
    return html`<span class="flex gap-1 items-center"
      >${said}
      <input
        type="number"
        min="1"
        max="31"
        size="3"
        aria-label=${say("desk.about.dayOf", { end: said })}
        .value=${String(Number(d))}
        @change=${(e) => put(which, "day", e.target.value)}
      /><select aria-label=${say("desk.about.monthOf", { end: said })} @change=${(e) => put(which, "month", e.target.value)}>
        ${options(/** @type {[string, string][]} */ (months), m)}
      </select></span
    >`;
  };
  const turn = (on) => set("season", on ? { from: "04-01", to: "10-31" } : null);
  return html`<div>
    <label class="flex gap-2 items-center">${check(say("desk.about.season"), Boolean(s.season), turn, { id: "a-season" })}</label>
    ${s.season ? html`<div class="flex flex-wrap gap-3 mt-1">${end("from", say("desk.about.from"))} ${end("to", say("desk.about.to"))}</div>` : nothing}
  </div>`;
}

/** The questions whose answers name a visit. */
function caption(state, s, set) {
  const now = s.caption ?? [];
  const rest = state.questions.filter((q) => !now.includes(q.name)).map((q) => [q.name, q.label]);
  const add = (e) => e.target.value && set("caption", [...now, e.target.value]);
  return html`<div>
    <label class="label" for="a-caption">${say("desk.about.caption")}</label>
    <span class="flex flex-wrap gap-2 items-center">
      ${now.map(
        (name) =>
          html`<span class="chip"
            >${state.labelOf(name)}
            <button
              type="button"
              class="plain"
              aria-label=${say("desk.about.notCaption", { label: state.labelOf(name) })}
              @click=${() =>
                set(
                  "caption",
                  now.filter((n) => n !== name),
                )}
            >
              ×
            </button></span
          >`,
      )}
      <select id="a-caption" @change=${add}>
        ${options([["", say(now.length ? "desk.about.andThen" : "desk.about.asset")], ...rest], "")}
      </select></span
    >
  </div>`;
}

function guidance(state) {
  const all = state.form.guidance ?? [];
  const set = (value) => state.edit({ op: "guidance", value });
  const put = (i, part) => (v) => set(all.map((g, k) => (k === i ? { ...g, [part]: v } : g)));
  const keep = async (file) => {
    try {
      const { id, name } = await postFile(`/api/p/${state.project}/form-documents`, file);
      await set([...all, { title: name.replace(/\.[^.]+$/, ""), file: id, name }]);
    } catch (e) {
      state.failure = e.message;
      state.changed();
    }
  };
  const one = (g, i) =>
    html`<li class="grid gap-1">
      <span class="flex gap-2 items-center"
        >${textBox(g.title, put(i, "title"), { class: "flex-1", said: say("desk.about.titleOf") })}
        <button type="button" class="plain" @click=${() => set(all.filter((_, k) => k !== i))}>${say("do.remove")}</button></span
      >
      ${
        g.file
          ? html`<a href=${state.fileUrl(g.file)}>${g.name}</a>`
          : html`<textarea
              class="w-full"
              rows="3"
              aria-label=${say("desk.about.textOf", { title: g.title })}
              .value=${g.text ?? ""}
              @change=${(e) => put(i, "text")(e.target.value)}
            ></textarea>`
      }
    </li>`;
  const write = () => set([...all, { title: say("desk.about.newText"), text: "" }]);
  return html`<section class="card grid gap-3" id="guidance">
    <h2>${say("desk.about.guidance")}</h2>
    <p class="quiet">${say("desk.about.guidanceWhy")}</p>
    <ul class="grid gap-3">
      ${all.map(one)}
    </ul>
    <p class="flex gap-2">
      <button type="button" id="add-text" @click=${write}>${say("desk.about.addText")}</button>
      ${fileButton(say("desk.about.addDocument"), ".pdf,.txt,.csv,.jpg,.jpeg,.png,.docx,.xlsx,.odt", keep, { id: "add-document" })}
    </p>
  </section>`;
}

/** Many pictures at once: each goes to the question or code that its file is named after. */
function pictures(state) {
  const bring = async (e) => {
    const files = [...e.target.files];
    e.target.value = "";
    state.told = [];
    const places = state.placesOf(files.map((f) => f.name));
    for (const [i, file] of files.entries()) {
      const [one, other] = places[i];
      if (!one || other) state.told.push(say(other ? "desk.about.severalPlaces" : "desk.about.noPlace", { file: file.name }));
      else {
        await state.setPicture(file, one.question, one.code);
        if (!state.failure) state.told.push(say("desk.about.placed", { file: file.name, label: state.labelOf(one.question) }));
      }
    }
    state.changed();
  };
  return html`<section class="card grid gap-3">
    <h2>${say("desk.about.pictures")}</h2>
    <p class="quiet">${say("desk.about.picturesWhy")}</p>
    <p>
      <label class="button"
        >${say("desk.about.bringPictures")}<input type="file" multiple accept="image/*" class="sr-only" id="pictures" @change=${bring}
      /></label>
    </p>
    <ul role="status" id="pictures-told">
      ${state.told.map((t) => html`<li>${t}</li>`)}
    </ul>
  </section>`;
}

// The codes of a question: changed, put in order, retired, given conditions and pictures, pasted as a column; thousands of them are searched.
import { check, fileButton, moved, textBox } from "../../shell/controls.js";
import { say, words } from "../../shell/say.js";
import { html, nothing, repeat } from "../../shell/view.js";

/** So many codes stand here at a time; of more those that are sought. */
const SHOWN = 40;
const MANY = ["choices", "ranked"];

/** @param {any} state @param {any} q */
export function codes(state, q) {
  const all = q.codes ?? [];
  const wanted = state.codeSought.toLowerCase();
  const found = all.map((c, i) => ({ c, i })).filter(({ c }) => `${c.code} ${c.label}`.toLowerCase().includes(wanted));
  const change = (how) => state.change("codes", how);
  const head = [say("desk.codes.code"), say("desk.codes.label"), say("desk.codes.retired"), ""];
  return html`<div id="e-codes">
    <p class="label">${say("desk.form.codesN", { n: all.length })}</p>
    ${
      all.length > SHOWN
        ? html`<input
            type="search"
            class="w-full"
            id="code-sought"
            aria-label=${say("desk.form.seekCode")}
            placeholder=${say("desk.form.seekCode")}
            .value=${state.codeSought}
            @input=${(e) => state.seekCode(e.target.value)}
          />`
        : nothing
    }
    <table class="codes w-full">
      <thead>
        <tr>
          ${head.map((h) => html`<th>${h}</th>`)}
        </tr>
      </thead>
      <tbody>
        ${repeat(
          found.slice(0, SHOWN),
          ({ c }) => c.code,
          ({ c, i }) => row(state, q, c, i, change),
        )}
      </tbody>
    </table>
    ${found.length > SHOWN ? html`<p class="quiet">${say("desk.form.moreCodes", { n: found.length - SHOWN })}</p>` : nothing}
    ${alike(state, all)} ${adding(state, all, change)}
  </div>`;
}

/** Where a code stands now that stood at `i`; codes may be doubled until somebody mends it. */
const placeOf = (now, c, i) => (now[i]?.code === c.code ? i : now.findIndex((x) => x.code === c.code));

function row(state, q, c, i, change) {
  const label = c.label || c.code;
  const put = (part) => (v) => change((now) => now.map((x, k) => (k === placeOf(now, c, i) ? { ...x, [part]: v } : x)));
  const code = (v) => put("code")(v.trim());
  const up = () =>
    change((now) => {
      const list = [...now];
      const at = placeOf(now, c, i);
      if (at > 0) moved(list, at, -1);
      return list;
    });
  const open = state.codeOpen === c.code;
  const picture = c.picture ? state.fileUrl(c.picture) : "";
  const more = () =>
    html`<tr>
      <td colspan="4" class="grid gap-1 pb-2">
        ${state.ruleBox(`code ${c.code}`, c.fitsWhen ?? "", {
          id: `e-fits-${i}`,
          said: say("desk.codes.whenFits", { label }),
          invitation: say("desk.rule.addFitsWhen"),
          list: state.listOf(q.name),
          type: "condition",
          put: put("fitsWhen"),
        })}
        <span class="flex flex-wrap gap-3 items-center">
          ${
            MANY.includes(q.type)
              ? html`<label class="flex items-center gap-2"
                  >${check(say("desk.codes.alone"), c.alone, put("alone"), { said: say("desk.codes.excludes", { label }) })}</label
                >`
              : nothing
          }
          ${picture ? html`<img class="reference small" src=${picture} alt=${say("desk.form.pictureOf", { label })} />` : nothing}
          ${fileButton(say("desk.form.picture"), "image/*", (file) => state.setPicture(file, q.name, c.code))}
          <button type="button" class="plain" ?disabled=${i === 0} @click=${up}>${say("desk.form.moveUp")}</button>
          <button type="button" class="plain" @click=${() => change((now) => now.filter((_, k) => k !== placeOf(now, c, i)))}>
            ${say("do.remove")}
          </button>
        </span>
      </td>
    </tr>`;
  return html`<tr>
      <td>${textBox(c.code, code, { said: say("desk.codes.codeOf"), class: "code w-full" })}</td>
      <td>${textBox(c.label, put("label"), { said: say("desk.codes.labelOf", { code: c.code }), class: "w-full" })}</td>
      <td>${check("", c.retired, put("retired"), { said: say("desk.codes.retire", { label }) })}</td>
      <td>
        <button
          type="button"
          class="plain"
          aria-expanded=${String(open)}
          aria-label=${say("desk.form.codeMore", { label })}
          @click=${() => state.openCode(open ? "" : c.code)}
        >
          ${c.fitsWhen || c.alone || c.picture ? "•" : "…"}
        </button>
      </td>
    </tr>
    ${open ? more() : nothing}`;
}

function alike(state, all) {
  const groups = state.alike(all);
  if (groups.length === 0) return nothing;
  return html`<p class="told">${say("desk.form.codesAlike", { which: groups.map((g) => g.join(", ")).join("; ") })}</p>`;
}

function adding(state, all, change) {
  const add = (e) => {
    const box = e.target.closest("div").querySelector("textarea");
    const { codes: got, told } = state.pastedCodes(box.value, all);
    state.codesTold = told.map(words).join(" ");
    if (got.length) {
      box.value = "";
      change((now) => [...now, ...got.filter((x) => !now.some((c) => c.code === x.code))]);
    } else state.changed();
  };
  return html`<div class="grid gap-1 mt-1">
    <textarea
      class="w-full"
      rows="2"
      id="codes-pasted"
      aria-label=${say("desk.codes.toAdd")}
      placeholder=${say("desk.codes.paste")}
    ></textarea>
    <p class="flex gap-2 items-center">
      <button type="button" id="add-codes" @click=${add}>${say("desk.codes.addThese")}</button>
      <span class="quiet" role="status">${state.codesTold}</span>
    </p>
  </div>`;
}

// All texts of a form beside their translations, with what is missing counted.
import { textBox } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { html, nothing, repeat } from "../../shell/view.js";

/** The name of a language in the person's own. @param {string} tag */
function named(tag) {
  try {
    return new Intl.DisplayNames([document.documentElement.lang || "en"], { type: "language" }).of(tag) ?? tag;
  } catch {
    return tag; // not a tag yet: it is shown as it was typed
  }
}

/** @param {any} state */
export function languages(state) {
  const all = state.languages;
  const now = state.language || all[0] || "";
  const add = (e) => {
    e.preventDefault();
    const tag = new FormData(e.target).get("tag")?.toString().trim() ?? "";
    if (tag) state.setLanguage(tag);
    e.target.reset();
  };
  return html`<div id="languages">
    <div class="flex flex-wrap gap-2 items-end mb-3">
      ${[...new Set([...all, ...(now ? [now] : [])])].map(
        (l) =>
          html`<button type="button" aria-pressed=${String(l === now)} data-language=${l} @click=${() => state.setLanguage(l)}>
            ${named(l)}
          </button>`,
      )}
      <form class="flex gap-2 items-end" @submit=${add}>
        <label class="label" for="new-language">${say("desk.form.newLanguage")}</label>
        <input id="new-language" name="tag" size="6" maxlength="35" placeholder=${say("desk.form.languageLike")} />
        <button type="submit">${say("desk.form.addLanguage")}</button>
      </form>
    </div>
    ${now ? table(state, now) : html`<p class="told">${say("desk.form.noLanguage")}</p>`}
  </div>`;
}

function table(state, language) {
  const { rows, missing } = state.texts(language);
  const put = (key) => (v) => state.edit({ op: "translate", language, texts: { [key]: v } });
  const what = (r) => (r.question ? state.labelOf(r.question) : say("desk.form.ofTheForm"));
  return html`<p class="mb-2" role="status" id="missing">
      ${missing === 0 ? say("desk.form.allTranslated", { language: named(language) }) : say("desk.form.missingTexts", { n: missing, of: rows.length })}
    </p>
    <table class="w-full bg-white">
      <thead>
        <tr>
          <th>${say("desk.form.ownText")}</th>
          <th>${named(language)}</th>
        </tr>
      </thead>
      <tbody>
        ${repeat(
          rows,
          (r) => r.key,
          (r, i) =>
            html`<tr>
              <td>
                ${i === 0 || rows[i - 1].question !== r.question ? html`<span class="quiet block">${what(r)}</span>` : nothing}${r.own}
              </td>
              <td class=${r.other ? "" : "missing-text"}>
                ${textBox(r.other, put(r.key), { class: "w-full", said: say("desk.form.translationOf", { text: r.own }) })}
              </td>
            </tr>`,
        )}
      </tbody>
    </table>`;
}

// Answering from a long list of codes: a few letters find them. Only what is found is drawn, however long the list is.
import { say } from "../shell/say.js";
import { html, nothing, render } from "../shell/view.js";

/** So many that were found stand there at a time. */
const SHOWN = 30;

/** The codes in whose code or label all the words occur, those that begin so first. @param {any[]} codes @param {string} text */
export function found(codes, text) {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const first = words[0] ?? "";
  const hit = (c) => {
    const said = `${c.label} ${c.code}`.toLowerCase();
    return words.every((w) => said.includes(w));
  };
  const begins = (c) => c.label.toLowerCase().startsWith(first) || c.code.toLowerCase().startsWith(first);
  const all = codes.filter(hit);
  return [...all.filter(begins), ...all.filter((c) => !begins(c))];
}

/** @param {any} q @param {string} id @param {any} act */
export function sought(q, id, act) {
  const isMany = Array.isArray(q.value);
  const now = isMany ? undefined : q.codes.find((c) => c.code === String(q.value));
  const put = (c) => (isMany ? act.tap(q.name, c.code, q.row) : act.set(q.name, c.code, q.row));
  const draw = (box, text) => {
    const all = text.trim() ? found(q.codes, text) : [];
    const one = (c) =>
      html`<button
        type="button"
        class="choice"
        data-code=${c.code}
        @click=${() => {
          box.previousElementSibling.value = "";
          render(nothing, box);
          put(c);
        }}
      >
        ${c.label}
      </button>`;
    const more = all.length - SHOWN;
    render(
      html`${all.slice(0, SHOWN).map(one)} ${more > 0 ? html`<span class="quiet">${say("sheet.moreFound", { n: more })}</span>` : nothing}
      ${text.trim() && all.length === 0 ? html`<span class="quiet">${say("sheet.noneFound")}</span>` : nothing}`,
      box,
    );
  };
  return html`${now ? html`<output class="q-fixed w-full">${now.label}</output>` : nothing}
    <input
      type="search"
      class="flex-1"
      id=${id}
      autocomplete="off"
      placeholder=${say("sheet.seek", { n: q.codes.length })}
      @input=${(e) => draw(e.target.nextElementSibling, e.target.value)}
    />
    <div class="choices w-full" role="status"></div>`;
}

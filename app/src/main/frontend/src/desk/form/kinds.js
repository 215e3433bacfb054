// Adding by choosing: all kinds of questions with what each is for, searched by either.
import { say } from "../../shell/say.js";
import { html, nothing } from "../../shell/view.js";
import { typesSaid, usesSaid } from "./types.js";

/** @param {any} state */
export function kinds(state) {
  if (!state.kindsShown) return nothing;
  const wanted = state.kindSought.toLowerCase();
  const all = typesSaid()
    .map(([type, said]) => ({ type, said, use: usesSaid(type) }))
    .filter((k) => `${k.said} ${k.use}`.toLowerCase().includes(wanted));
  const put = (type) => state.addOfKind(type, say("desk.form.newOfKind", { kind: typesSaid().find(([t]) => t === type)?.[1] ?? type }));
  const seek = (e) => state.seekKind(e.target.value);
  const keys = (e) => {
    if (e.key === "Escape") state.showKinds(false);
    else if (e.key === "Enter" && all.length) put(all[0].type);
    else return;
    e.preventDefault();
  };
  return html`<div class="card kinds" id="kinds" @keydown=${keys}>
    <input
      type="search"
      class="w-full"
      id="kind-sought"
      aria-label=${say("desk.form.seekKind")}
      placeholder=${say("desk.form.seekKind")}
      .value=${state.kindSought}
      @input=${seek}
    />
    <ul>
      ${all.map(
        (k) =>
          html`<li>
            <button type="button" class="plain" data-kind=${k.type} @click=${() => put(k.type)}>${k.said}</button>
            <span class="quiet">${k.use}</span>
          </li>`,
      )}
    </ul>
    ${all.length === 0 ? html`<p class="quiet">${say("desk.form.noKind")}</p>` : nothing}
  </div>`;
}

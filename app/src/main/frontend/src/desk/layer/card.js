// The card of a feature: its values, pictures, visits, and all that was ever changed.
import { day, when } from "../../shell/styles.js";
import { say } from "../../shell/say.js";
import { html, nothing } from "../../shell/view.js";

/** @param {any} state */
export function card(state) {
  const { card: c, beside, base, home, work } = state;
  const value = (v) =>
    html`<tr>
      <th scope="row">${v.label}</th>
      <td dir="auto">${v.shown}</td>
    </tr>`;
  return html`<section class="card" id="card" aria-live="polite">
    <div class="flex justify-between gap-2">
      <div class="flex items-center gap-2">
        <img alt="" src=${`${base}/look/symbol/${c.id}.svg`} class="shrink-0" />
        <h2>${c.caption}</h2>
      </div>
      <button class="plain" type="button" @click=${() => state.close()}>${say("do.close")}</button>
    </div>
    <table class="w-full">
      <tbody>
        ${c.values.map(value)}
      </tbody>
    </table>
    ${beside.pictures.length ? pictures(beside.pictures, home, c.caption) : nothing}${beside.visits.length ? visits(beside.visits, home, work) : nothing}
    <h3 class="mt-3">${say("desk.card.ledger")}</h3>
    <ol>
      ${c.history.map((e) => entry(e, home, work))}
    </ol>
  </section>`;
}

function pictures(all, home, caption) {
  const one = (p) => {
    const said = [p.at ? when(p.at) : say("desk.card.noTime"), p.facts].join(" · ");
    const at = `${home.replace("/p/", "/api/p/")}/photos/${p.id}`;
    return html`<li>
      <figure>
        <a href=${at + "?whole=true"}><img class="w-full" src=${at} alt=${say("desk.card.pictureOf", { caption })} loading="lazy" /></a>
        <figcaption class="quiet">${said}</figcaption>
      </figure>
    </li>`;
  };
  return html`<ul class="flex flex-col gap-3 mt-3" id="pictures">
    ${all.map(one)}
  </ul>`;
}

/** The visits, which can be opened by whoever sees the work. */
function visits(all, home, work) {
  const one = (v) => {
    const said = v.future ? say("desk.card.inFuture", { day: day(v.at) }) : day(v.at);
    return html`<li class="py-2 border-b border-mist">
      <p>
        <strong>${said}</strong>, ${v.person} ${work ? html`<a href=${`${home}/hand-ins/${v.id}`}>${say("desk.card.seeIt")}</a>` : nothing}
      </p>
      ${v.file ? html`<p class="quiet">${v.file}</p>` : nothing}
      <ul>
        ${v.answers.map((a) => html`<li><span class="quiet">${a.label}</span>: ${a.shown}</li>`)}
      </ul>
    </li>`;
  };
  return html`<div id="visits">
    <h3 class="mt-3">${say("desk.card.visits")}</h3>
    <ol>
      ${all.map(one)}
    </ol>
  </div>`;
}

/** An entry of the ledger. @param {import("../../../types/border").LedgerEntry} e @param {string} home @param {boolean} work */
function entry(e, home, work) {
  const empty = say("desk.card.empty");
  const change = (f) => say("desk.card.becomes", { field: f.label, before: f.before || empty, after: f.after || empty });
  const visit = e.visit && work ? html`, <a href=${`${home}/hand-ins/${e.visit}`}>${say("desk.card.seeVisit")}</a>` : nothing;
  return html`<li class="py-2 border-b border-mist">
    <p><strong>${e.summary}</strong></p>
    <p class="quiet"><time datetime=${e.at}>${when(e.at)}</time>, ${e.person}${visit}</p>
    <ul>
      ${e.fields.map((f) => html`<li>${change(f)}</li>`)}
    </ul>
  </li>`;
}

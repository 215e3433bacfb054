// The features of a layer in a list beside its map: found by tag, filtered by a rule, ticked to be taken out.
import { say } from "../../shell/say.js";
import { html, live, nothing, repeat } from "../../shell/view.js";

const MOST_LISTED = 200;

/** @param {any} state @param {{outputs: string, layer: string, empty: unknown}} about `outputs` is the address where they are taken out, `empty` what an empty layer says */
export function features(state, { outputs, layer, empty }) {
  const { there, ticked, applied } = state;
  const out = (more) => `${outputs}?layer=${layer}&${more}`;
  const only = out("only=" + ticked.join(","));
  const hits = state.all.filter((f) => f.caption.toLowerCase().includes(state.found.trim().toLowerCase()));
  return html`<section class="card">
    <div class="flex justify-between items-baseline">
      <h2>${say("desk.list.title")}</h2>
      <span class="quiet" id="matching">${say("desk.list.count", { n: there.count })}</span>
    </div>
    ${empty ?? [finding(state), filtering(state, applied ? out("filter=" + encodeURIComponent(applied)) : "")]}
    ${ticked.length ? html`<p class="mb-1"><a id="ticked-out" href=${only}>${say("desk.list.ticked", { n: ticked.length })}</a></p>` : nothing}
    ${there.drawn ? nothing : html`<p class="told">${say("desk.list.tooMany")}</p>`}
    ${!there.whole && there.drawn ? html`<p class="quiet">${say("desk.list.inView")}</p>` : nothing}
    <ul id="feature-list">
      ${repeat(
        hits.slice(0, MOST_LISTED),
        (f) => f.id,
        (f) => line(state, f),
      )}
    </ul>
    ${longer(state, hits)}
  </section>`;
}

function finding(state) {
  const find = say("desk.list.find");
  return html`<p class="mb-2">
    <input class="w-full" type="search" placeholder=${find} aria-label=${find} @input=${(e) => state.find(e.target.value)} />
  </p>`;
}

function filtering(state, outLink) {
  const apply = (e) => {
    e.preventDefault();
    state.apply(e.target.elements.rule.value);
  };
  const acts = html`<p class="mt-1 flex gap-3">
    <a href=${outLink}>${say("desk.list.takeTheseOut")}</a
    ><button class="plain" type="button" @click=${() => state.apply("")}>${say("desk.list.showAll")}</button>
  </p>`;
  return html`<form class="mb-2" @submit=${apply}>
    <label class="label" for="rule">${say("desk.list.where")}</label>
    <div class="flex gap-2">
      <input
        class="code flex-1 min-w-0"
        id="rule"
        name="rule"
        placeholder=${state.ruleLike}
        autocomplete="off"
        spellcheck="false"
        .value=${live(state.rule)}
        @input=${(e) => (state.rule = e.target.value)}
      />
      <button type="submit">${say("desk.list.filter")}</button>
    </div>
    ${state.ruleProblem ? html`<p class="text-bracken" role="alert">${state.ruleProblem}</p>` : nothing}${outLink ? acts : nothing}
  </form>`;
}

function line(state, f) {
  return html`<li class="flex items-center">
    <input
      type="checkbox"
      class="size-[24px]"
      .checked=${live(state.ticked.includes(f.id))}
      aria-label=${say("desk.list.tick", { caption: f.caption })}
      @change=${(e) => state.tick(f.id, e.target.checked)}
    /><button class="plain" type="button" data-id=${f.id} @click=${() => state.pick(f.id).catch((e) => state.fail(e))}>${f.caption}</button>
  </li>`;
}

function longer(state, hits) {
  if (hits.length > MOST_LISTED) return html`<p class="quiet">${say("desk.firstOf", { n: MOST_LISTED, of: hits.length })}</p>`;
  const none = hits.length === 0 && state.there.drawn && state.there.features.length > 0;
  return none ? html`<p class="quiet">${say("desk.list.none")}</p>` : nothing;
}

// Trials: filled examples that are kept with the draft and run again at each change; what is other than expected stands at each.
import { day } from "../../shell/styles.js";
import { say, words } from "../../shell/say.js";
import { getJson, post } from "../../shell/server.js";
import { html, nothing } from "../../shell/view.js";
import { rested } from "./rested.js";

export class Trials {
  /** @type {any[]} */
  list = [];
  /** Whether they could be run with the draft as it is. */
  ran = true;
  isOpen = false;
  name = "";
  /** Visits that came in and can be kept; null as long as nobody asked. @type {any[] | null} */
  visits = null;
  #later;

  /** @param {any} state */
  constructor(state) {
    this.state = state;
    this.#later = rested(state, () => this.#do(() => getJson(this.#base)));
  }

  get #base() {
    return this.state.base + "/trials";
  }
  /** Told whenever the draft may be another. */
  changed() {
    if (this.state.builds) this.#later();
  }
  get failing() {
    return this.list.filter((t) => t.differences.length);
  }

  /** Does something after which all trials are told anew. */
  async #do(deed) {
    try {
      const { ran, trials } = await deed();
      Object.assign(this, { ran, list: trials });
      this.state.failure = "";
      return true;
    } catch (e) {
      this.state.failure = e.message;
      return false;
    } finally {
      this.state.changed();
    }
  }
  async keep(more) {
    const name = this.name.trim() || say("desk.trial.nameOf", { n: this.list.length + 1 });
    if (await this.#do(() => post(this.#base, { name, ...more }))) Object.assign(this, { name: "", visits: null });
    this.state.changed();
  }
  expectNow(t) {
    return this.#do(() => post(`${this.#base}/${t.id}/expect`, {}));
  }
  rename(t, name) {
    return this.#do(() => post(`${this.#base}/${t.id}/name`, { name }));
  }
  async remove(t) {
    if (!confirm(say("desk.trial.removeAsk", { name: t.name }))) return;
    if (this.state.trial?.id === t.id) this.state.startOver();
    await this.#do(() => post(`${this.#base}/${t.id}/remove`, {}));
  }
  async fill(t) {
    try {
      await this.state.fillAs({ id: t.id, name: t.name, ...(await getJson(`${this.#base}/${t.id}`)) });
    } catch (e) {
      this.state.failure = e.message;
      this.state.changed();
    }
  }
  async offerVisits() {
    try {
      this.visits = await getJson(`${this.#base}/visits`);
    } catch (e) {
      this.state.failure = e.message;
    }
    this.state.changed();
  }
}

/** What is other than a trial expects; each leads to its question. */
function differences(state, t) {
  return html`<ul class="trial-differences">
    ${t.differences.map(
      (d) =>
        html`<li>
          <button type="button" class="plain" data-difference=${d.question} @click=${() => state.goTo(d.question)}>
            <b>${d.label}</b> ${words(d.said)}
          </button>
        </li>`,
    )}
  </ul>`;
}

function trial(state, t) {
  const { trials } = state;
  const other = t.differences.length;
  const chip = !trials.ran
    ? nothing
    : other
      ? html`<span class="chip trouble">${say("desk.trial.other", { n: other })}</span>`
      : html`<span class="chip">${say("desk.trial.asExpected")}</span>`;
  const expects = t.holding ? say("desk.trial.expectsHeld", { n: t.holding }) : say("desk.trial.expectsSent");
  return html`<li data-trial=${t.id} class=${state.trial?.id === t.id ? "lit" : ""}>
    <span class="trial-line"
      ><input
        aria-label=${say("desk.trial.name")}
        maxlength="120"
        .value=${t.name}
        @change=${(e) => trials.rename(t, e.target.value)}
      /><span class="quiet">${t.feature || say("desk.form.newFeature")} · ${expects}</span> ${chip}
      <button type="button" class="plain" data-fill=${t.id} @click=${() => trials.fill(t)}>${say("desk.trial.fill")}</button>
      ${
        other
          ? html`<button type="button" class="plain" data-expect=${t.id} @click=${() => trials.expectNow(t)}>
              ${say("desk.trial.asMeant")}
            </button>`
          : nothing
      }
      <button type="button" class="plain" data-remove-trial=${t.id} @click=${() => trials.remove(t)}>${say("do.remove")}</button></span
    >
    ${other ? differences(state, t) : nothing}
  </li>`;
}

/** Keeping one more: what the sheet is filled with, or a visit that came in. */
function keeping(state) {
  const { trials } = state;
  const offered =
    trials.visits &&
    (trials.visits.length
      ? html`<select
          id="trial-visit"
          aria-label=${say("desk.trial.whichVisit")}
          @change=${(e) => e.target.value && trials.keep({ visit: e.target.value })}
        >
          <option value="">${say("desk.trial.whichVisit")}</option>
          ${trials.visits.map((v) => html`<option value=${v.id}>${v.caption || say("desk.form.newFeature")} · ${v.person} · ${day(v.endedAt)}</option>`)}
        </select>`
      : html`<span class="quiet">${say("desk.trial.noVisits")}</span>`);
  return html`<p class="trial-line">
    <input
      id="trial-name"
      maxlength="120"
      placeholder=${say("desk.trial.name")}
      aria-label=${say("desk.trial.name")}
      .value=${trials.name}
      @input=${(e) => (trials.name = e.target.value)}
    /><button type="button" id="trial-keep" ?disabled=${!state.isSound} @click=${() => trials.keep(state.live.kept())}>
      ${say("desk.trial.keep")}
    </button>
    ${offered || html`<button type="button" class="plain" id="trial-from-visit" @click=${() => trials.offerVisits()}>${say("desk.trial.fromVisit")}</button>`}
  </p>`;
}

/** The trials at the foot of the workshop. @param {any} state */
export function trialsAtFoot(state) {
  const { trials } = state;
  const failing = trials.failing.length;
  return html`<details id="trials" ?open=${trials.isOpen} @toggle=${(e) => (trials.isOpen = e.target.open)}>
    <summary>
      ${say("desk.trial.trials", { n: trials.list.length })}
      ${failing ? html`<span class="chip trouble">${say("desk.trial.failing", { n: failing })}</span>` : nothing}
    </summary>
    ${trials.list.length ? nothing : html`<p class="quiet">${say("desk.trial.what")}</p>`}
    ${trials.ran ? nothing : html`<p class="told">${say("desk.trial.notRun")}</p>`}
    <ul class="trials">
      ${trials.list.map((t) => trial(state, t))}
    </ul>
    ${keeping(state)}
  </details>`;
}

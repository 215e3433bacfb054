// Draws a sheet from the engine's view. One module for the desk and the day book. It decides nothing: what is asked, wrong or
// missing comes in with the view; what people do goes out through `act`.
import { say } from "../shell/say.js";
import { ROW } from "../shell/states.js";
import { guard, html, nothing, render, repeat } from "../shell/view.js";
import { stateSaid } from "../shell/words.js";
import { keyOf } from "./points.js";
import { question } from "./question.js";

/** The points of each question. */
function group(points) {
  const of = new Map();
  for (const p of points) {
    const key = keyOf({ name: p.question, row: p.row });
    of.set(key, [...(of.get(key) ?? []), p]);
  }
  return (q) => of.get(keyOf(q)) ?? [];
}

/** Questions one under another, half ones side by side, each block under its title. */
function lines(questions, blocks, one) {
  const head = (q, i) => {
    const before = i === 0 ? "" : (questions[i - 1].block ?? "");
    const b = (q.block ?? "") !== before && blocks?.find((x) => x.name === q.block);
    if (!b) return nothing;
    return html`<header class="sheet-block">
      <h3>${b.title}</h3>
      ${b.intro ? html`<p class="quiet">${b.intro}</p>` : nothing}
    </header>`;
  };
  return html`<div class="sheet-lines">${repeat(questions, keyOf, (q, i) => html`${head(q, i)}${one(q)}`)}</div>`;
}

/** What a row's head offers: one of this visit can go again, one of the last visit is to be looked at. */
function rowActs(r, act) {
  if (r.state === ROW.NEW)
    return html`<button type="button" class="plain ms-auto" @click=${() => act.removeRow(r.id)}>${say("do.remove")}</button>`;
  const mark = (state) =>
    html`<button type="button" class="choice" aria-pressed=${String(r.state === state)} @click=${() => act.markRow(r.id, state)}>
      ${stateSaid(state)}
    </button>`;
  return html`<span class="ms-auto flex gap-1 flex-wrap">${[ROW.STILL, ROW.MENDED, ROW.GONE].map(mark)}</span>`;
}

/** Which row it is, what became of it, and what can be done with it. */
export function rowHead(r, i, act) {
  const said = r.state === ROW.NEW ? "" : r.state === ROW.TO_CONFIRM ? say("sheet.foundLast") : stateSaid(r.state);
  return html`<header>
    <h3>${i + 1}</h3>
    <span class="quiet">${said}</span>${rowActs(r, act)}
  </header>`;
}

/** A row of a list. */
export function oneRow(s, r, i, act, one) {
  const over = r.state === ROW.MENDED || r.state === ROW.GONE;
  return html`<section class="sheet-row" data-row-id=${r.id} aria-label=${say("sheet.rowOf", { title: s.title, n: i + 1 })}>
    ${rowHead(r, i, act)} ${over ? nothing : lines(r.questions, s.blocks, one)}
  </section>`;
}

/** The end of a list: one more row, and what is open of the list as a whole. */
export function addingRows(s, points, act) {
  const add = html`<button type="button" ?disabled=${!s.list.canAdd} data-add=${s.name} @click=${() => act.addRow(s.name)}>
    ${s.rows.length ? say("sheet.another") : say("sheet.addOne")}
  </button>`;
  return html`<p class="q flex items-center gap-3">
    ${act.addRow ? add : nothing}${points.map((p) => html`<span class="quiet">${p.message}</span>`)}
    ${s.rows.length === 0 ? html`<span class="quiet">${say("sheet.noneSoFar")}</span>` : nothing}
  </p>`;
}

/** The rows of a list; those of the last visit ask whether the thing is still there. */
function rows(s, pointsOf, act, one) {
  return [
    repeat(
      s.rows,
      (r) => r.id,
      (r, i) => oneRow(s, r, i, act, one),
    ),
    addingRows(s, pointsOf({ name: s.name }), act),
  ];
}

function section(s, pointsOf, act, one) {
  const same = html`<button type="button" class="plain" @click=${() => act.confirmSection(s.index)}>
    ${say("sheet.allSame", { n: s.toConfirm })}
  </button>`;
  return html`<section class="sheet-section" data-section=${s.index}>
    <header>
      <h2>${s.title}</h2>
      ${s.toConfirm > 0 ? same : nothing}
    </header>
    ${s.intro ? html`<p class="q quiet">${s.intro}</p>` : nothing}
    ${s.list ? rows(s, pointsOf, act, one) : lines(s.questions, s.blocks, one)}
  </section>`;
}

/**
 * What people do to a sheet, and the answer that was taken away last, until anything else is done: it can be put back.
 * @param {Record<string, Function>} deeds
 */
export function remembering(deeds) {
  /** @type {{key: string, shown: string} | null} */
  let taken = null;
  const after =
    (told, deed) =>
    (...args) => {
      taken = told(...args);
      return deed(...args);
    };
  /** @type {Record<string, Function>} */
  const act = Object.fromEntries(
    Object.entries(deeds).map(([name, deed]) => [name, name === "photo" || name === "picture" ? deed : after(() => null, deed)]),
  );
  act.tap = after((name, code, row, away) => (away ? { key: keyOf({ name, row }), shown: away } : null), deeds.tap);
  act.takeAway = (q) => after(() => ({ key: keyOf(q), shown: q.shown }), deeds.set)(q.name, null, q.row);
  return { act, taken: () => taken };
}

/**
 * A sheet in an element.
 * deeds: { set(name, value, row), tap(name, code, row), putBack(), confirm(name, row), takeOffer(name, row), confirmSection(index), confirmSoft(key), addRow(list), removeRow(row), markRow(row, state),
 *   addPhoto(name, file, row), removePhoto(name, id, row), photo(id) → {url, note} }; a row is undefined outside of lists.
 * @param {HTMLElement} root
 * @param {Record<string, Function>} deeds
 */
export function makeSheet(root, deeds) {
  const { act, taken } = remembering(deeds);
  root.classList.add("sheet");

  /** @param {any} view @param {{page?: number}} [which] */
  function draw(view, { page } = {}) {
    const pointsOf = group(view.points);
    // what is as it was is not drawn again; photos come and go without the view knowing
    const one = (q) => {
      const points = pointsOf(q);
      const again = q.type === "photo" ? {} : taken()?.key === keyOf(q);
      return guard([q, points.map((p) => p.kind + p.key + p.message).join("|"), again], () => question(q, points, act, taken()));
    };
    const seen = view.sections.filter((s) => (page === undefined || s.page === page) && (s.questions.length > 0 || s.list?.asked));
    render(
      repeat(
        seen,
        (s) => s.index,
        (s) => section(s, pointsOf, act, one),
      ),
      root,
    );
  }

  /** Brings a question, a row or a list into view and puts the cursor there. @param {string} name @param {string} [row] */
  function goTo(name, row) {
    const inRow = row ? `[data-row="${CSS.escape(row)}"]` : ":not([data-row])";
    const box =
      root.querySelector(`[data-question="${CSS.escape(name)}"]${inRow}`) ??
      (row
        ? root.querySelector(`[data-row-id="${CSS.escape(row)}"]`)
        : root.querySelector(`[data-add="${CSS.escape(name)}"]`)?.parentElement);
    if (!box) return;
    box.scrollIntoView({ block: "center" });
    const first = box.querySelector("input:not(.sr-only), textarea, select, button.choice, input, button") ?? box;
    /** @type {HTMLElement} */ (first).focus({ preventScroll: true });
  }

  return { draw, goTo };
}

/** What a sheet does to an open visit of the engine; `change` wraps each deed. A row's id is made here. */
export function answering(visit, change) {
  return {
    set: (name, v, row = "") => change(() => visit.setIn(name, row, JSON.stringify(v))),
    tap: (name, code, row = "") => change(() => visit.tap(name, row, code)),
    putBack: () => change(() => visit.undo()),
    confirm: (name, row = "") => change(() => visit.confirmIn(name, row)),
    takeOffer: (name, row = "") => change(() => visit.takeOffer(name, row)),
    confirmSection: (i) => change(() => visit.confirmSection(i)),
    confirmSoft: (key) => change(() => visit.confirmSoft(key)),
    addRow: (list) => change(() => visit.addRow(list, crypto.randomUUID())),
    removeRow: (row) => change(() => visit.removeRow(row)),
    markRow: (row, state) => change(() => visit.markRow(row, state)),
  };
}

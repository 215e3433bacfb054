// A rule as text: coloured while it is typed, gone on with by what fits, with what is wrong under the very characters.
import { say, words } from "../../shell/say.js";
import { html, live, nothing } from "../../shell/view.js";

/** The text in pieces that are coloured, with the problems' places marked. */
function pieces(text, kinds, problems) {
  const edges = new Set([0, text.length]);
  for (const [from, to] of kinds) edges.add(from).add(to);
  for (const p of problems) edges.add(Math.min(p.from, text.length)).add(Math.min(p.to, text.length));
  const all = [...edges].sort((a, b) => a - b);
  return all.slice(0, -1).map((from, i) => {
    const to = all[i + 1];
    const kind = kinds.find((k) => k[0] <= from && to <= k[1])?.[2] ?? "";
    const wrong = problems.some((p) => p.from <= from && to <= p.to);
    return html`<span class=${`w-${kind}`} data-wrong=${wrong ? "true" : nothing}>${text.slice(from, to)}</span>`;
  });
}

/** Puts what is offered in the place of what is being written. */
function take(box, area, option) {
  const { from, to } = box.offer;
  const text = box.now.slice(0, from) + option.text + box.now.slice(to);
  Object.assign(box, { typed: text, offer: null });
  box.draw.now();
  const at = from + option.text.length;
  area.focus();
  area.setSelectionRange(at, at);
}

function offered(box, area) {
  const offer = box.state.completion(box.how.list, box.now, area.selectionStart);
  box.offer = offer.options.length ? offer : null;
  box.picked = 0;
}

function keys(box, id) {
  return (e) => {
    const area = e.target;
    const n = box.offer?.options.length ?? 0;
    if (e.key === " " && e.ctrlKey) {
      offered(box, area);
      box.draw.now();
    } else if (n && (e.key === "ArrowDown" || e.key === "ArrowUp")) {
      box.picked = (box.picked + (e.key === "ArrowDown" ? 1 : n - 1)) % n;
      box.draw.now();
      document.getElementById(`${id}-offer-${box.picked}`)?.scrollIntoView({ block: "nearest" });
    } else if (n && (e.key === "Tab" || e.key === "Enter")) take(box, area, box.offer.options[box.picked]);
    else if (e.key === "Escape" && box.offer) {
      box.offer = null;
      box.draw.now();
    } else if (e.key === "Enter" && !e.shiftKey && !e.isComposing) box.put(area.value);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
}

/** @param {import("./rule-box.js").RuleBox} box @param {string} id */
export function textView(box, id) {
  const text = box.now;
  const problems = text.trim() ? (box.view.problems ?? []) : [];
  const options = box.offer?.options ?? [];
  const input = (e) => {
    box.typed = e.target.value;
    offered(box, e.target);
    box.draw.now();
  };
  const leave = () => {
    box.offer = null;
    if (box.typed !== null) box.put(box.typed);
    else box.draw.now();
  };
  const cure = (p) => box.put(text.slice(0, p.from) + p.fix + text.slice(p.to));
  return html`<div class="rule-edit">
      <pre aria-hidden="true">${pieces(text, text ? box.state.ruleWords(text) : [], problems)}${"\n"}</pre>
      <textarea
        class="rule"
        id=${id}
        rows="1"
        spellcheck="false"
        autocomplete="off"
        role="combobox"
        aria-label=${box.how.said}
        aria-autocomplete="list"
        aria-expanded=${String(options.length > 0)}
        aria-controls=${`${id}-offer`}
        aria-activedescendant=${options.length ? `${id}-offer-${box.picked}` : nothing}
        aria-invalid=${problems.length ? "true" : nothing}
        maxlength="4000"
        placeholder=${say("desk.form.askWhenLike")}
        .value=${live(text)}
        @input=${input}
        @keydown=${keys(box, id)}
        @blur=${leave}
      ></textarea>
    </div>
    <ul class="rule-offer" role="listbox" id=${`${id}-offer`} aria-label=${say("desk.rule.offered")} ?hidden=${options.length === 0}>
      ${options.map(
        (o, i) =>
          html`<li
            role="option"
            id=${`${id}-offer-${i}`}
            aria-selected=${String(i === box.picked)}
            @pointerdown=${(e) => {
              e.preventDefault(); // the text keeps the cursor
              take(box, document.getElementById(id), o);
            }}
          >
            <span class=${`code w-${o.kind === "code" ? "text" : o.kind}`}>${o.text}</span> <span class="quiet">${words(o.label)}</span>
          </li>`,
      )}
    </ul>
    ${problems.map(
      (p) =>
        html`<p class="point firm" role="status">
          <span>${words(p.message)}</span>
          ${
            p.fix
              ? html`<button type="button" class="plain" data-cure @pointerdown=${(e) => e.preventDefault()} @click=${() => cure(p)}>
                  ${say("desk.form.put")} <span class="code">${p.fix}</span>
                </button>`
              : nothing
          }
        </p>`,
    )}`;
}

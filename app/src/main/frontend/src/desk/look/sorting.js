// How features are sorted into the entries of a look: by nothing, by codes, by classes of numbers, by rules.
import { check, choose } from "../../shell/controls.js";
import { say, sayOf } from "../../shell/say.js";
import { html, nothing, ref } from "../../shell/view.js";
import { numeric } from "./state.js";

/** @param {any} state @param {{ways: any, ramps: any[]}} choices */
export function sorting(state, { ways, ramps }) {
  const { look, may } = state;
  const way = (id) =>
    html`<button type="button" data-way=${id} aria-pressed=${String(look.by === id)} ?disabled=${!may} @click=${() => state.sortBy(id)}>
      ${sayOf("lookBy", id)}
    </button>`;
  return html`<div class="ways mb-2" role="group" aria-label=${say("desk.look.sorted")}>${ways.by.map(way)}</div>
    ${look.by === "code" || look.by === "class" ? byField(state, ways, ramps) : nothing} ${look.by === "rule" ? byRule(state) : nothing}`;
}

function byField(state, ways, ramps) {
  const { look, fields, may } = state;
  const classed = look.by === "class";
  const usable = fields.filter((f) => (classed ? numeric(f) : f.type !== "unique_id"));
  const kinds = classed ? ["rising", "two_sided"] : ["codes", "rising", "two_sided"];
  const method = look.method ?? "natural";
  const counts = Array.from({ length: ways.most - ways.least + 1 }, (_, i) => String(ways.least + i));
  const breakBy = (m) => (m === "hand" ? state.change((l) => (l.method = "hand")) : state.propose({ method: m }));
  const disabled = !may;
  return html`<div class="knobs mb-2">
    ${choose(
      say("desk.look.field"),
      look.field,
      usable.map((f) => [f.name, f.label]),
      (field) => state.propose({ field }),
      { id: "look-field", disabled },
    )}
    ${
      classed
        ? choose(
            say("desk.look.breaks"),
            method,
            ways.methods.map((m) => [m, sayOf("breaks", m)]),
            breakBy,
            { id: "look-method", disabled },
          )
        : nothing
    }
    ${
      classed && method !== "hand"
        ? choose(
            say("desk.look.classes"),
            String(look.classes.length),
            counts.map((n) => [n, n]),
            (n) => state.propose({ classes: Number(n) }),
            {
              id: "look-classes",
              disabled,
            },
          )
        : nothing
    }
    ${choose(
      say("desk.look.colours"),
      look.ramp ?? "",
      ramps.filter((r) => kinds.includes(r.kind)).map((r) => [r.id, r.label]),
      (ramp) => state.propose({ ramp }),
      { id: "look-ramp", disabled },
    )}
    <span class="ramp" aria-hidden="true">${(ramps.find((r) => r.id === look.ramp)?.colours ?? []).map(dab)}</span>
  </div>`;
}

/** A dab of colour; its colour is set by script, since pages allow no styles of their own. */
function dab(colour) {
  const paint = (/** @type {any} */ e) => {
    if (e) e.style.background = colour;
  };
  return html`<span ${ref(paint)}></span>`;
}

function byRule(state) {
  const all = check(say("desk.look.everyRule"), state.look.all === true, (on) => state.change((l) => (l.all = on)), {
    id: "look-all",
    disabled: !state.may,
  });
  const add = html`<button type="button" id="add-rule" @click=${() => state.addRule()}>${say("desk.look.addRule")}</button>`;
  return html`<div class="knobs mb-2"><label>${all}</label>${state.may ? add : nothing}</div>`;
}

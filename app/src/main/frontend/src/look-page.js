// The look of a layer: how features are sorted into the legend's entries, and what each draws. Every change is on the map at once; saved for everybody by one button.
import { post, request, token } from "./api.js";
import { withBasemaps } from "./basemaps.js";
import { afterPress, h } from "./dom.js";
import { LayerOnMap } from "./layer-on-map.js";
import { url } from "./look.js";
import { symbolRow, usualSymbol } from "./look-symbols.js";
import * as maps from "./map.js";

const number = new Intl.NumberFormat("en");
const numeric = (f) => f.type === "whole" || f.type === "decimal";
const copy = (o) => JSON.parse(JSON.stringify(o));

/** Gives a text to the person as a file. */
export function giveFile(name, type, text) {
  const a = h("a", { href: URL.createObjectURL(new Blob([text], { type })), download: name });
  a.click();
  setTimeout(() => URL.revokeObjectURL(a.href), 10_000);
}

export async function lookPage(box) {
  const { project, layer, kind } = box.dataset;
  const fields = JSON.parse(box.dataset.fields);
  const icons = JSON.parse(box.dataset.icons);
  const ramps = JSON.parse(box.dataset.ramps);
  const ways = JSON.parse(box.dataset.ways);
  const may = box.dataset.may === "true";
  const base = `/api/p/${project}/layers/${layer}`;
  const target = h("div", { class: "map h-[calc(100dvh-200px)] min-h-[480px]", tabindex: "0", "aria-label": "Map of the layer, drawn by the look beside it" });
  const side = h("div", { class: "h-[calc(100dvh-260px)] min-h-[420px] overflow-y-auto pr-1", id: "look-editor" });
  const foot = h("div", { class: "stay flex items-center gap-3", id: "look-foot" });
  box.replaceChildren(h("div", { class: "grid gap-4 lg:grid-cols-[1fr_470px]" }, target, h("div", {}, side, foot)));

  const first = await (await request(`${base}/look`)).json();
  let { look, revision } = first;
  let shown = first;
  let ground = [];
  let open = -1;
  let saved = JSON.stringify(look);
  let failure = "";
  let told = "";
  const back = [];

  const map = maps.makeMap(target);
  maps.showText(map, box.dataset.extent);
  let ready = false;
  await withBasemaps(map, project, (b) => {
    ground = b.ground;
    if (ready && may) tryIt(); // whether colours drown depends on it
  });
  const drawn = new LayerOnMap(map, base);
  await drawn.start();
  ready = true;

  let turn = 0;
  box.dataset.turn = "0";
  let waiting;
  const tryIt = () => {
    clearTimeout(waiting);
    waiting = setTimeout(() => send("try", {}), 120);
  };
  /** Sends the look to be tried or proposed; the newest answer counts. */
  async function send(what, more) {
    const mine = ++turn;
    try {
      const got = await post(`${base}/look/${what}`, { look, ground, ...more });
      if (mine !== turn) return;
      failure = "";
      shown = got;
      if (what === "propose") {
        remember();
        look = got.look;
        open = -1;
        afterPress(render);
      } else afterPress(refresh);
      await drawn.tryLook(got.key, got.plan);
    } catch (e) {
      failure = e.message;
      refresh();
    }
    box.dataset.turn = String(turn);
  }
  const remember = () => {
    back.push(JSON.stringify(look));
    if (back.length > 200) back.shift();
  };
  /** Changes the look; `again` draws the editor anew, for changes of what it is made of. */
  const change = (how, again = true) => {
    if (!may) return;
    remember();
    how(look);
    told = "";
    if (again) afterPress(render);
    tryIt();
  };
  const entryAt = (i) => (i < look.classes.length && look.by !== "one" ? look.classes[i] : look.other);
  const entries = () => (look.by === "one" ? [look.other] : [...look.classes, look.other]);

  /** What depends on the server's answer: symbols, counts, problems. */
  function refresh() {
    side.querySelectorAll("[data-entry]").forEach((row) => {
      const i = Number(row.dataset.entry);
      const plan = shown.plan.entries[i];
      if (!plan) return;
      row.querySelector(".symbol-button img").src = url(plan.symbol);
      row.querySelector(".entry-count").textContent = number.format(shown.counts[i] ?? 0);
      row.querySelector(".entry-problem").replaceChildren(...[...shown.problems, ...shown.drowning].filter((p) => p.entry === i).map((p) => h("p", { class: "text-bracken text-sm" }, p.message)));
    });
    const general = [...(failure ? [{ message: failure }] : []), ...shown.problems.filter((p) => p.entry < 0)];
    side.querySelector("#look-problems")?.replaceChildren(...general.map((p) => h("p", { class: "told" }, p.message)));
    const dirty = JSON.stringify(look) !== saved;
    foot.replaceChildren(
      ...(may
        ? [h("button", { class: "main", type: "button", id: "save-look", disabled: !dirty, onclick: save }, "Save this look for everybody"), h("button", { type: "button", id: "undo-look", disabled: back.length === 0, onclick: undo }, "Undo")]
        : [h("span", { class: "quiet" }, "Only a coordinator changes looks.")]),
      h("span", { role: "status", id: "look-said" }, told || (dirty ? "Tried on your map only." : "As everybody sees it."))
    );
  }

  async function save() {
    try {
      revision = (await post(`${base}/look`, { look, revision })).revision;
      saved = JSON.stringify(look);
      told = "Saved for everybody.";
      failure = "";
    } catch (e) {
      failure = e.message;
    }
    refresh();
  }
  function undo() {
    look = JSON.parse(back.pop());
    told = "";
    render();
    tryIt();
  }

  const choose = (label, value, options, onchange, id) => h("label", {}, label, h("select", { id, onchange: (e) => onchange(e.target.value) }, options.map(([v, l]) => h("option", { value: v, selected: v === value }, l))));
  /** What was chosen and not yet answered, so that a second choice does not lose the first. */
  let asked = {};
  const propose = async (more) => {
    asked = { ...asked, ...more };
    const mine = asked;
    await send("propose", { by: look.by, field: look.field ?? "", method: look.method ?? "natural", classes: look.classes.length || 5, ramp: look.ramp ?? "", ...asked });
    if (mine === asked) asked = {};
  };

  function sorting() {
    const ofField = fields.filter((f) => (look.by === "class" ? numeric(f) : f.type !== "unique_id"));
    const kinds = look.by === "class" ? ["rising", "two_sided"] : ["codes", "rising", "two_sided"];
    const method = look.method ?? "natural";
    return [
      h("div", { class: "ways mb-2", role: "group", "aria-label": "How features are sorted" }, ways.by.map(([id, label]) =>
        h("button", { type: "button", "data-way": id, "aria-pressed": String(look.by === id), disabled: !may, onclick: () => {
          if (look.by === id) return;
          const usual = id === "code" ? fields.find((f) => f.codes.length > 0) ?? fields[0] : id === "class" ? fields.find((f) => numeric(f)) : null;
          if (id === "class" && !usual) {
            failure = "This layer has no field of numbers, so that no classes can be made.";
            return refresh();
          }
          propose({ by: id, field: usual?.name ?? "", ramp: id === "class" ? "peat" : "assorted", classes: 5, method: "natural" });
        } }, label))),
      look.by === "code" || look.by === "class"
        ? h("div", { class: "knobs mb-2" },
            choose("Field", look.field, ofField.map((f) => [f.name, f.label]), (field) => propose({ field }), "look-field"),
            look.by === "class" && choose("Breaks", method, ways.methods, (m) => (m === "hand" ? change((l) => (l.method = "hand")) : propose({ method: m })), "look-method"),
            look.by === "class" && method !== "hand" && choose("Classes", String(look.classes.length), Array.from({ length: ways.most - ways.least + 1 }, (_, i) => [String(ways.least + i), String(ways.least + i)]), (n) => propose({ classes: Number(n) }), "look-classes"),
            choose("Colours", look.ramp ?? "", ramps.filter((r) => kinds.includes(r.kind)).map((r) => [r.id, r.label]), (ramp) => propose({ ramp }), "look-ramp"),
            h("span", { class: "ramp", "aria-hidden": "true" }, (ramps.find((r) => r.id === look.ramp)?.colours ?? []).map((c) => dab(c))))
        : null,
      look.by === "rule"
        ? h("div", { class: "knobs mb-2" },
            h("label", {}, h("input", { type: "checkbox", id: "look-all", checked: look.all === true, onchange: (e) => change((l) => (l.all = e.target.checked)) }), "draw every rule that holds, not the first alone"),
            may && h("button", { type: "button", id: "add-rule", onclick: () => change((l) => {
              l.classes.push({ label: `Rule ${l.classes.length + 1}`, rule: "", stack: copy(l.other.stack.length ? l.other.stack : [usualSymbol(kind)]) });
              open = l.classes.length - 1;
            }) }, "Add a rule"))
        : null,
    ];
  }

  function dab(colour) {
    const s = h("span");
    s.style.background = colour;
    return s;
  }

  function entry(c, i) {
    const other = look.by !== "one" && i === look.classes.length;
    const said = c.label || (look.by === "one" ? "All features" : "Everything else");
    const row = h("div", { class: "look-entry", "data-entry": String(i), "data-open": open === i },
      h("div", { class: "line" },
        h("button", { type: "button", class: "symbol-button", "aria-expanded": String(open === i), "aria-label": `Symbols of ${said}`, onclick: () => {
          open = open === i ? -1 : i;
          render();
        } }, h("img", { alt: "" })),
        h("input", { class: "flex-1 min-w-0", value: c.label ?? "", placeholder: said, "aria-label": "Label", disabled: !may, onchange: (e) => change(() => (entryAt(i).label = e.target.value), false) }),
        look.by === "class" && !other && h("label", { class: "text-sm" }, "up to ", h("input", { type: "number", step: "any", class: "w-[5.4rem]", value: String(c.upTo ?? ""), "aria-label": `${said}: up to`, disabled: look.method !== "hand" || !may, onchange: (e) => change(() => (entryAt(i).upTo = e.target.value === "" ? undefined : Number(e.target.value))) })),
        h("span", { class: "entry-count quiet text-sm tabular-nums", title: "features" })),
      look.by === "rule" && !other && h("div", { class: "px-2 pb-1" }, h("input", { class: "rule", value: c.rule ?? "", placeholder: "condition >= 4 AND kind = 'weir'", spellcheck: "false", "aria-label": `${said}: rule`, disabled: !may, onchange: (e) => change(() => (entryAt(i).rule = e.target.value)) })),
      h("div", { class: "entry-problem px-2" }),
      open === i && body(c, i, other));
    return row;
  }

  function body(c, i, other) {
    const rerow = (how, again) => change(() => how(entryAt(i)), again);
    const uses = [...icons, ...Object.entries(look.icons ?? {}).map(([id, icon]) => ({ id, label: icon.label, svg: ownPicture(icon) }))];
    return h("div", { class: "body" },
      c.stack.map((s, k) =>
        symbolRow(s, { kind, fields, icons: uses, last: k === c.stack.length - 1 }, {
          set: (how, again) => rerow((e) => how(e.stack[k]), again),
          away: () => rerow((e) => e.stack.splice(k, 1), true),
          up: () => rerow((e) => e.stack.splice(k + 1, 0, ...e.stack.splice(k, 1)), true),
        })),
      h("div", { class: "knobs" },
        choose("Add", "", [["", "a symbol on top…"], ["mark", "an icon"], ...(kind !== "point" ? [["line", "a line"]] : []), ...(kind === "polygon" ? [["area", "a fill"]] : [])], (draw) => draw && rerow((e) => e.stack.push(usualSymbol(kind, draw)), true)),
        look.by !== "one" && h("button", { type: "button", class: "copy-stack", onclick: () => send("propose", { same: i }) }, "Same symbols for all entries, colours kept"),
        h("button", { type: "button", class: "more-icons", onclick: () => moreIcons(i) }, "More icons…"),
        h("label", { class: "button" }, "Own icon (SVG)", h("input", { type: "file", accept: ".svg,image/svg+xml", class: "sr-only", onchange: (e) => ownIcon(e.target.files[0], i) })),
        look.by === "rule" && !other && h("button", { type: "button", onclick: () => change((l) => (l.classes.splice(i, 1), (open = -1))) }, "Remove this rule"),
        look.by === "rule" && i > 0 && !other && h("button", { type: "button", onclick: () => change((l) => l.classes.splice(i - 1, 0, ...l.classes.splice(i, 1)) && (open = i - 1)) }, "Up")),
      h("p", { class: "label mt-3" }, "A feature made from this entry begins with"),
      h("div", { class: "knobs", "data-preset": "" },
        Object.entries(c.preset ?? {}).map(([name, v]) => {
          const f = fields.find((x) => x.name === name);
          const put = (value) => rerow((e) => (e.preset[name] = value), false);
          return h("label", {}, f?.label ?? name,
            f?.codes.length
              ? h("select", { onchange: (e) => put(e.target.value) }, f.codes.map((k) => h("option", { value: k.code, selected: k.code === String(v) }, k.label)))
              : h("input", { value: String(v), class: "w-[7rem]", onchange: (e) => put(f && numeric(f) && e.target.value !== "" ? Number(e.target.value) : e.target.value) }),
            h("button", { type: "button", class: "plain", "aria-label": `Leave ${f?.label ?? name} out`, onclick: () => rerow((e) => delete e.preset[name], true) }, "×"));
        }),
        choose("Add", "", [["", "a value…"], ...fields.filter((f) => !(f.name in (c.preset ?? {}))).map((f) => [f.name, f.label])], (name) => name && rerow((e) => ((e.preset ??= {})[name] = fields.find((f) => f.name === name).codes[0]?.code ?? ""), true))));
  }

  const ownPicture = (icon) => `<svg xmlns="http://www.w3.org/2000/svg" width="24" height="24" viewBox="0 0 ${Number(icon.box)} ${Number(icon.box)}">${icon.parts.map((p) => `<path d="${p.path}" fill="${p.fill === "colour" ? "#1f2a30" : p.fill === "outline" ? "#fff" : p.fill}" stroke="${p.stroke === "colour" ? "#1f2a30" : p.stroke === "outline" ? "#fff" : p.stroke}" stroke-width="${Number(p.width)}"/>`).join("")}</svg>`;

  async function moreIcons(i) {
    try {
      const { openIconLibrary } = await import("./icon-library.js");
      await openIconLibrary(({ label, svg }) => ownIcon(new File([svg], label + ".svg"), i));
    } catch (e) {
      failure = e.message;
      refresh();
    }
  }

  async function ownIcon(file, i) {
    if (!file) return;
    try {
      const got = await (await request(`${base}/look/icon?name=${encodeURIComponent(file.name.replace(/\.svg$/i, ""))}`, { method: "POST", body: file, headers: { "Content-Type": "application/octet-stream", ...token() } })).json();
      const id = "own-" + Math.random().toString(36).slice(2, 10);
      change((l) => {
        (l.icons ??= {})[id] = got.icon;
        const mark = entryAt(i).stack.find((s) => s.draw === "mark");
        if (mark) mark.icon = id;
        else entryAt(i).stack.push({ ...usualSymbol("point"), icon: id });
      });
      if (got.notes.length) told = `Cleaned: ${got.notes.join("; ")}.`;
    } catch (e) {
      failure = e.message;
    }
    refresh();
  }

  function labels() {
    return h("details", { class: "card mt-3", open: look.label.template !== "" },
      h("summary", { class: "font-semibold cursor-pointer" }, "Label and scale"),
      h("p", { class: "mt-2" }, h("label", { class: "label", for: "label-template" }, "Written beside each feature"), h("textarea", { class: "w-full code", rows: "2", id: "label-template", placeholder: "{tag}", disabled: !may, onchange: (e) => change((l) => (l.label.template = e.target.value), false) }, look.label.template)),
      h("div", { class: "knobs" },
        choose("Put in", "", [["", "a field…"], ...fields.map((f) => [f.name, f.label])], (name) => name && change((l) => (l.label.template += `{${name}}`))),
        h("label", {}, "Height", h("input", { type: "number", min: "6", max: "40", value: look.label.px, onchange: (e) => change((l) => (l.label.px = Number(e.target.value)), false) }), "px"),
        h("label", {}, "written up to 1 :", h("input", { type: "number", min: "0", class: "w-[6rem]", value: look.label.farthest || "", placeholder: "any", onchange: (e) => change((l) => (l.label.farthest = Number(e.target.value)), false) }))),
      h("div", { class: "knobs mt-2" },
        h("label", {}, "Drawn from 1 :", h("input", { type: "number", min: "0", class: "w-[6rem]", value: look.nearest || "", placeholder: "any", id: "look-nearest", onchange: (e) => change((l) => (l.nearest = Number(e.target.value)), false) })),
        h("label", {}, "to 1 :", h("input", { type: "number", min: "0", class: "w-[6rem]", value: look.farthest || "", placeholder: "any", id: "look-farthest", onchange: (e) => change((l) => (l.farthest = Number(e.target.value)), false) }))));
  }

  function files() {
    return h("details", { class: "card mt-3" },
      h("summary", { class: "font-semibold cursor-pointer" }, "Take it out, bring one in"),
      h("div", { class: "knobs mt-2" },
        h("button", { type: "button", onclick: () => giveFile("look.json", "application/json", JSON.stringify(look, null, 1)) }, "As a file of its own (JSON)"),
        h("button", { type: "button", onclick: async () => {
          try {
            const got = await post(`${base}/look/sld`, { look });
            giveFile("look.sld", "application/vnd.ogc.sld+xml", got.xml);
            told = got.notes.length ? `The file says all but: ${got.notes.join("; ")}.` : "The file says all of the look.";
          } catch (e) {
            failure = e.message;
          }
          refresh();
        } }, "As SLD 1.1 (OGC)"),
        may && h("label", { class: "button" }, "Bring one in (JSON)", h("input", { type: "file", accept: ".json,application/json", class: "sr-only", id: "look-in", onchange: async (e) => {
          try {
            const text = await e.target.files[0].text();
            let read;
            try {
              read = JSON.parse(text);
            } catch {
              throw new Error("The file is not JSON, so it is no look. Nothing was changed.");
            }
            const got = await post(`${base}/look/try`, { look: read, ground });
            remember();
            look = got.look;
            shown = got;
            failure = "";
            told = "Brought in; look at it, then save it.";
            render();
            await drawn.tryLook(got.key, got.plan);
          } catch (error) {
            failure = error.message;
            refresh();
          }
        } }))));
  }

  function render() {
    const at = side.scrollTop;
    side.replaceChildren(h("div", { id: "look-problems" }), ...sorting().filter(Boolean), h("div", { id: "look-entries" }, entries().map(entry)), labels(), files());
    side.scrollTop = at;
    refresh();
  }
  render();
  addEventListener("beforeunload", (e) => {
    if (JSON.stringify(look) !== saved) e.preventDefault();
  });
  box.dataset.ready = "true";
}

// What is other in a pack than it was: told after it was fetched again.

/** @typedef {{say: string, with: Record<string, any>}} Line a key of the catalogue and what is put into its text */

const versions = (pack) => new Map(pack.features.filter((f) => !f.found).map((f) => [f.id, f.version]));
const named = (all, key) => new Map(all.map((x) => [x[key], x]));

/** @param {any} before @param {any} after @returns {Line[]} */
export function whatChanged(before, after) {
  const out = [];
  const line = (key, about) => out.push({ say: key, with: about });
  forms(before, after, line);
  stops(before, after, line);
  features(before, after, line);
  const visits = newVisits(before, after);
  if (visits) line("day.news.visits", { n: visits });
  const [was, is] = [before.plan.round, after.plan.round];
  if (otherNote(was, is)) line("day.news.note", { note: is.note });
  if (was.due !== is.due) line("day.news.due", { due: is.due });
  return out;
}

/** Whether a note says or shows something else; packs of an earlier day book have no pictures. */
const otherNote = (was, is) => was.note !== is.note || String(was.pictures ?? "") !== String(is.pictures ?? "");

function forms(before, after, line) {
  const was = named(before.plan.forms, "id");
  for (const f of after.plan.forms) {
    const old = was.get(f.id);
    if (!old) line("day.news.form", { title: f.title });
    else if (old.edition !== f.edition) line("day.news.edition", { title: f.title, edition: f.edition });
  }
  const layers = named(before.layers, "layer");
  for (const l of after.layers) if (!layers.has(l.layer)) line("day.news.layer", { layer: l.name });
}

function stops(before, after, line) {
  const was = named(before.plan.stops, "feature");
  const is = named(after.plan.stops, "feature");
  const more = after.plan.stops.filter((s) => !was.has(s.feature)).length;
  const gone = before.plan.stops.filter((s) => !is.has(s.feature)).length;
  const noted = after.plan.stops.filter((s) => was.has(s.feature) && otherNote(was.get(s.feature), s)).length;
  if (more) line("day.news.stops", { n: more });
  if (gone) line("day.news.stopsGone", { n: gone });
  if (noted) line("day.news.stopNotes", { n: noted });
}

function features(before, after, line) {
  const was = versions(before);
  const is = versions(after);
  let changed = 0;
  let more = 0;
  for (const [id, version] of is) {
    if (!was.has(id)) more++;
    else if (was.get(id) !== version) changed++;
  }
  const gone = [...was.keys()].filter((id) => !is.has(id)).length;
  if (changed) line("day.news.changed", { n: changed });
  if (more) line("day.news.assets", { n: more });
  if (gone) line("day.news.assetsGone", { n: gone });
}

/** How many features have another last visit than they had. */
function newVisits(before, after) {
  let n = 0;
  for (const [form, visits] of Object.entries(after.last))
    for (const [feature, v] of Object.entries(visits)) {
      const old = before.last[form]?.[feature];
      if (!old || old.day !== v.day || old.person !== v.person) n++;
    }
  return n;
}

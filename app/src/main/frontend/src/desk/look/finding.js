// Finding icons by word.

/** What people call things, beside the words of the icons themselves. @type {Record<string, string>} */
const ALSO = {
  lamp: "street lamp mast lighting",
  light: "street lamp mast lighting",
  lantern: "street lamp",
  drain: "manhole water",
  sewer: "manhole waste",
  cover: "manhole",
  pole: "utility pole power pole",
  post: "bollard pole",
  seat: "bench",
  bin: "waste",
  litter: "waste",
  rubbish: "waste",
  notice: "info board sign",
  signpost: "sign board",
  playground: "play structure slide swing",
  bush: "shrub hedge",
  stump: "tree stump",
  parking: "car parked bicycle parked",
  crossing: "crossing markings",
  valve: "shutoff",
  tap: "water tap",
  well: "well pump",
  jetty: "pier",
  mooring: "horn cleat bollard",
  camera: "security camera",
  sculpture: "sculpture statue",
};

/** Which icons have a word, or the words that stand for it. @param {{words: string, groups: string[]}[]} all @param {string} text @param {string} group "" for all */
export function found(all, text, group) {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  // from the beginning of a word on, so that a tree is no street
  const has = (icon, w) =>
    (" " + icon.words).includes(" " + w) || (ALSO[w] ?? "").split(" ").some((a) => a && icon.words.split(" ").includes(a));
  return all.filter((i) => (!group || i.groups.includes(group)) && words.every((w) => has(i, w)));
}

// A small way to make elements: h("p", { class: "quiet", onclick }, "text", child).
export function h(tag, attributes = {}, ...children) {
  const e = document.createElement(tag);
  for (const [k, v] of Object.entries(attributes)) {
    if (v === undefined || v === null || v === false) continue;
    if (k.startsWith("on")) e.addEventListener(k.slice(2), v);
    else if (k in e && typeof v !== "string") e[k] = v;
    else e.setAttribute(k, v === true ? "" : v);
  }
  for (const c of children.flat(Infinity)) if (c !== undefined && c !== null && c !== false) e.append(c);
  return e;
}

const SVG = "http://www.w3.org/2000/svg";

export function svg(tag, attributes = {}, ...children) {
  const e = document.createElementNS(SVG, tag);
  for (const [k, v] of Object.entries(attributes)) e.setAttribute(k, v);
  for (const c of children.flat()) e.append(c);
  return e;
}

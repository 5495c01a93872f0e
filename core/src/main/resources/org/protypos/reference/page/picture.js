"use strict";
// The picture: what comes one after the other stands below each other, what may be chosen in a dashed box, what comes several
// times in a box behind it.
function picture(one) {
  const NS = "http://www.w3.org/2000/svg";
  const GROUPS = ["SEQUENCE", "CHOICE", "ALL", "FROM"];
  const svg = document.createElementNS(NS, "svg");
  function shape(name, attributes, text) {
    const element = document.createElementNS(NS, name);
    Object.entries(attributes).forEach(([key, value]) => element.setAttribute(key, value));
    if (text) {
      element.textContent = text;
    }
    svg.append(element);
    return element;
  }
  const cut = text => text.length > 46 ? text.slice(0, 45) + "…" : text;
  function measure(node) {
    if (!GROUPS.includes(node.k)) {
      node.text = cut((node.m ? SIGNS[node.m][0] + " " : "") + node.n + (node.t ? ": " + node.t : "") + (node.o && node.o !== "1" ? "  " + node.o : ""));
      return { w: node.text.length * 7.3 + 18, h: 24 };
    }
    const parts = (node.c || []).map(child => child.size = measure(child));
    return { w: Math.max(120, ...parts.map(part => part.w)) + 24, h: parts.reduce((sum, part) => sum + part.h + 6, 28) };
  }
  function draw(node, x, y, size) {
    const group = GROUPS.includes(node.k);
    const several = node.o && /n$|\.\.([2-9]|\d\d)|^[2-9]|^\d\d/.test(node.o);
    const kind = (node.k === "CHOICE" ? "shape choice" : group ? "shape" : "") + (node.m ? " " + node.m : "");
    if (several) {
      shape("rect", { x: x + 4, y: y + 4, width: size.w, height: size.h, rx: 5, class: kind });
    }
    shape("rect", { x, y, width: size.w, height: size.h, rx: 5, class: kind });
    if (!group) {
      shape("text", { x: x + 9, y: y + 16 }, node.text);
      return;
    }
    shape("text", { x: x + 9, y: y + 16, class: "quiet" }, cut(node.n + (node.o && node.o !== "1" ? "  " + node.o : "")));
    let at = y + 24;
    for (const child of node.c || []) {
      draw(child, x + 12, at, child.size);
      at += child.size.h + 6;
    }
  }
  const copy = nodes => (nodes || []).slice(0, 40).map(node => ({ k: node.k, n: node.n, t: node.t, o: node.o, m: node.m, c: copy(node.c) }));
  const own = one.kind === "element" && one.own && one.own.length ? one.own[0].c || [] : one.own || [];
  const parts = copy(own);
  if (one.base && byId.has(one.base)) {
    const base = components[byId.get(one.base)];
    parts.unshift({ k: "FROM", n: "from " + base.name, c: copy(contentOf(one.base, [])) });
  }
  if (!parts.length) {
    return null;
  }
  const root = { k: "FROM", n: one.name, c: parts };
  root.size = measure(root);
  draw(root, 1, 1, root.size);
  const width = root.size.w + 8;
  const height = root.size.h + 8;
  svg.setAttribute("viewBox", "0 0 " + width + " " + height);
  svg.setAttribute("width", width);
  svg.setAttribute("height", height);
  svg.setAttribute("role", "img");
  svg.setAttribute("aria-label", "The structure of " + one.name);
  return svg;
}

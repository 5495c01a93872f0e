"use strict";
// The picture: what comes one after the other stands below each other, what may be chosen in a dashed box, what comes several
// times in a box behind it.
const NS = "http://www.w3.org/2000/svg";
const LETTER = 7.3;

function canvas() {
  return document.createElementNS(NS, "svg");
}

function shaped(parent, name, attributes, text) {
  const element = document.createElementNS(NS, name);
  Object.entries(attributes).forEach(([key, value]) => element.setAttribute(key, value));
  if (text) {
    element.textContent = text;
  }
  parent.append(element);
  return element;
}

function sized(svg, width, height, label) {
  svg.setAttribute("viewBox", "0 0 " + width + " " + height);
  svg.setAttribute("width", width);
  svg.setAttribute("height", height);
  svg.setAttribute("aria-label", label);
  return svg;
}

// The elements that may stand in the place of one, and of those that may (XML Schema Part 1, section 3.3.6).
function replaced(node, seen) {
  const head = byId.has(node.r) ? components[byId.get(node.r)] : null;
  if (!head || head.kind !== "element" || seen.includes(head.id)) {
    return [];
  }
  return (head.uses || []).filter(use => use[1] === "stands for it").map(use => components[use[0]])
      .flatMap(one => [one, ...replaced({ r: one.id }, seen.concat(head.id))]);
}

function picture(one) {
  const GROUPS = ["SEQUENCE", "CHOICE", "ALL", "FROM"];
  const svg = canvas();
  const shape = (name, attributes, text) => shaped(svg, name, attributes, text);
  const cut = text => text.length > 46 ? text.slice(0, 45) + "…" : text;
  function measure(node) {
    if (!GROUPS.includes(node.k)) {
      node.text = cut((node.m ? SIGNS[node.m][0] + " " : "") + node.n + (node.t ? ": " + node.t : "") + (node.o && node.o !== "1" ? "  " + node.o : ""));
      return { w: node.text.length * LETTER + 18, h: 24 };
    }
    const parts = (node.c || []).map(child => child.size = measure(child));
    node.text = cut(node.n + (node.o && node.o !== "1" ? "  " + node.o : ""));
    return { w: Math.max(120, node.text.length * LETTER, ...parts.map(part => part.w)) + 24, h: parts.reduce((sum, part) => sum + part.h + 6, 28) };
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
    shape("text", { x: x + 9, y: y + 16, class: "quiet" }, node.text);
    let at = y + 24;
    for (const child of node.c || []) {
      draw(child, x + 12, at, child.size);
      at += child.size.h + 6;
    }
  }
  const isAbstract = node => /(^|; )one of /.test(node.d || "");
  const copy = nodes => (nodes || []).slice(0, 40).map(node => replaced(node, []).length
      ? { k: "CHOICE", n: (isAbstract(node) ? "in the place of " + node.n : node.n + " or in its place"), o: node.o, m: node.m, c: [
          ...(isAbstract(node) ? [] : [{ k: node.k, n: node.n, t: node.t }]),
          ...replaced(node, []).slice(0, 40).map(one => ({ k: "ELEMENT", n: one.name }))] }
      : { k: node.k, n: node.n, t: node.t, o: node.o, m: node.m, c: copy(node.c) });
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
  svg.setAttribute("role", "img");
  return sized(svg, root.size.w + 8, root.size.h + 8, "The structure of " + one.name);
}

// Who is derived from whom: by the number of a type the numbers of those that are derived from it, and the one that it is derived from.
let derived = null;
function derivations() {
  if (!derived) {
    derived = { below: new Map(), above: new Map() };
    components.forEach((one, number) => (one.uses || []).filter(use => one.kind === "type" && /^(extends|restricts) it$/.test(use[1]))
        .forEach(use => {
          derived.below.set(number, (derived.below.get(number) || []).concat(use[0]));
          derived.above.set(use[0], number);
        }));
  }
  return derived;
}

const MOST_RELATIVES = 60;

// The family of a type: those that it is derived from on the left, those that are derived from it on the right.
function family(one) {
  const { below, above } = derivations();
  const own = byId.get(one.id);
  const line = [own];
  while (above.has(line[0]) && !line.includes(above.get(line[0]))) {
    line.unshift(above.get(line[0]));
  }
  if (line.length === 1 && !below.has(own)) {
    return null;
  }
  const svg = canvas();
  let bottom = 0;
  let widest = 0;
  let drawn = 0;
  // Beside those above stands but the line that leads to the type; what is below it is there in full.
  function draw(number, at, x, seen) {
    const name = components[number].name;
    const width = name.length * LETTER + 18;
    const children = at < line.length - 1 ? [line[at + 1]] : (below.get(number) || []).filter(child => !seen.includes(child));
    const y = bottom;
    const a = shaped(svg, "a", { href: link(components[number].id) });
    shaped(a, "rect", { x: x + 1, y: y + 1, width, height: 24, rx: 5, class: number === own ? "own" : "" });
    shaped(a, "text", { x: x + 10, y: y + 17 }, name);
    widest = Math.max(widest, x + width);
    children.forEach((child, i) => {
      if (++drawn > MOST_RELATIVES) {
        return;
      }
      bottom += i > 0 ? 32 : 0;
      shaped(svg, "path", { d: "M" + (x + 1 + width) + " " + (y + 13) + " H" + (x + width + 13) + " V" + (bottom + 13) + " h 14" });
      draw(child, at + 1, x + width + 26, seen.concat(child));
    });
  }
  draw(line[0], 0, 0, line);
  sized(svg, widest + 4, bottom + 28, "The family of " + one.name);
  svg.setAttribute("role", "group");
  return drawn > MOST_RELATIVES
      ? make("div", null, svg, make("p", { class: "quiet" }, "the first " + MOST_RELATIVES + "; those that use it, below, are all")) : svg;
}

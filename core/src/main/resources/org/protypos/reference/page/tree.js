"use strict";
// The structure of components as a tree that is drawn as far as it is opened.
function contentOf(id, seen) {
  const number = byId.get(id);
  if (number === undefined) {
    return [];
  }
  const one = components[number];
  const inherited = one.base && !seen.includes(one.base)
      ? contentOf(one.base, seen.concat(id)) : [];
  const own = one.kind === "element" && one.own && one.own.length === 1
      ? one.own[0].c || (one.own[0].r ? contentOf(one.own[0].r, seen.concat(id)) : []) : one.own || [];
  return inherited.concat(own);
}

const inside = node => node.c && node.c.length ? node.c : node.r ? contentOf(node.r, []) : [];

// What a rule that was laid over the contract says of a component.
function ruled(rule) {
  const change = rule.was === undefined ? [] : [" (", make("del", null, rule.was || "nothing"), " ", make("ins", null, rule.is || "nothing"), ")"];
  return make("span", { class: "rule", title: rule.where }, sign("ruled"), rule.said, ...change,
      rule.because ? make("span", { class: "quiet" }, ", " + rule.because) : "");
}

// What is said of a node; what differs from what the other contract says is marked as gone or new.
function saying(node, other, change) {
  const differs = key => other && (node[key] || "") !== (other[key] || "");
  const marked = (key, element) => differs(key) ? make(change, null, element) : element;
  const parts = [
    marked("n", node.r ? make("a", { href: link(node.r), class: "label" }, node.n) : make("span", { class: "label" }, node.n)),
    node.t ? marked("t", make("span", { class: "type" }, node.t)) : "",
    node.o ? marked("o", make("span", { class: "occurs" }, node.o)) : "",
    node.d ? marked("d", make("span", { class: "said" }, node.d)) : "",
    ...(node.rules || []).map(ruled),
    node.a ? marked("a", make("span", { class: "about" }, node.a)) : ""
  ];
  return parts.filter(part => part).flatMap(part => [part, " "]);
}

function row(node, level, budget, depth) {
  const more = inside(node);
  const item = make("li", null);
  const below = make("ul", null);
  below.style.setProperty("--depth", depth + 1);
  let filled = false;
  const button = more.length ? make("button", { "aria-expanded": "false", "aria-label": "content of " + node.n,
    onclick: () => open(button.getAttribute("aria-expanded") !== "true", { left: MOST_OPEN }, 0) }, "▸") : make("span", { class: "no" });
  function open(wanted, room, levels) {
    if (wanted && !filled) {
      filled = true;
      more.forEach(child => below.append(row(child, levels, room, depth + 1)));
    }
    below.hidden = !wanted;
    button.setAttribute("aria-expanded", String(wanted));
    button.textContent = wanted ? "▾" : "▸";
  }
  item.append(make("div", { class: compared && !node.m ? "row same" : "row" }, button, ...(compared ? halves(node) : saying(node))), below);
  below.hidden = true;
  const wanted = level > 0 || compared && more.some(changes);
  if (more.length && wanted && budget.left > more.length) {
    budget.left -= more.length;
    open(true, budget, level - 1);
  }
  return item;
}

function tree(nodes, levels) {
  const budget = { left: MOST_OPEN };
  const all = make("ul", null);
  all.style.setProperty("--depth", 0);
  nodes.forEach(node => all.append(row(node, levels, budget, 0)));
  return make("div", { class: compared ? "tree pairs" : "tree" }, compared ? titles() : "", all);
}

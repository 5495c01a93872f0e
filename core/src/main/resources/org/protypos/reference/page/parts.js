"use strict";
// What all scripts of the page use: the data, and elements made of it.
const data = JSON.parse(document.getElementById("data").textContent);
const main = document.getElementById("content");
const list = document.getElementById("list");
const search = document.getElementById("search");
const found = document.getElementById("found");
// Of two contracts beside each other, what became of something.
const compared = data.compared;
const SIGNS = { ruled: ["§", "by a rule"], inside: ["•", "changes inside"],  added: ["+", "new"], removed: ["−", "gone"], renamed: ["~", "called otherwise"], changed: ["~", "changed"], moved: ["↕", "stands elsewhere"] };
const components = data.components;
const byId = new Map(components.map((one, number) => [one.id, number]));
components.forEach((one, number) => {
  if (one.oldId && !byId.has(one.oldId)) {
    byId.set(one.oldId, number);
  }
});
const KINDS = ["operation", "element", "type", "message", "group", "attribute", "attribute group"];
const MOST_LISTED = 300;
const MOST_OPEN = 60;
const MOST_PRINTED = 600;

/** Makes an element; texts stay texts. */
function make(name, attributes, ...content) {
  const element = document.createElement(name);
  for (const [key, value] of Object.entries(attributes || {})) {
    if (key.startsWith("on")) {
      element.addEventListener(key.slice(2), value);
    } else if (value !== null && value !== undefined && value !== false) {
      element.setAttribute(key, value === true ? "" : value);
    }
  }
  element.append(...content.filter(one => one !== null && one !== undefined && one !== ""));
  return element;
}

// A name that may go on in the next line between its words, and nowhere in them.
function wrappable(name) {
  return name.split(/(?<=[\p{Ll}\d])(?=\p{Lu})|(?<=[._:-])/u).flatMap((word, i) => i ? [make("wbr"), word] : [word]);
}

const link = id => "#" + encodeURIComponent(id);

function sign(mark) {
  return mark ? make("span", { class: "sign " + mark, role: "img", "aria-label": SIGNS[mark][1] }, SIGNS[mark][0]) : null;
}

function titled(one) {
  return make("span", null, sign(one.m), make("a", { href: link(one.id) }, one.name), " ", make("span", { class: "kind" },
      one.kind + (one.within ? " of " + one.within : "")));
}

function place(at) {
  if (!at) {
    return null;
  }
  const from = data.documents[at[0]];
  return make("a", { href: link("document/" + at[0] + "/" + at[1]), class: "mono" },
      (from.side ? from.side + " " : "") + from.name + ":" + at[1]);
}

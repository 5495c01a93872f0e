"use strict";
// Two contracts beside each other.
let touched = null;

// The components of which something became, or of what is in them, in whatever circles they are with each other.
function touchedComponents() {
  const users = components.map(() => []);
  const used = (nodes, user) => (nodes || []).forEach(node => {
    if (byId.has(node.r)) {
      users[byId.get(node.r)].push(user);
    }
    used(node.c, user);
  });
  components.forEach((one, number) => {
    used(one.own, number);
    if (byId.has(one.base)) {
      users[byId.get(one.base)].push(number);
    }
  });
  const all = new Set(components.flatMap((one, number) => one.m ? [number] : []));
  all.forEach(number => users[number].forEach(user => all.add(user)));
  return all;
}

function isTouched(one) {
  touched = touched || touchedComponents();
  return touched.has(byId.get(one.id));
}

function changes(node) {
  return Boolean(node.m) || (node.c || []).some(changes) || byId.has(node.r) && isTouched(components[byId.get(node.r)]);
}

function titles() {
  return make("div", { class: "row titles" }, make("span", { class: "no" }),
      make("div", { class: "old" }, "old"), make("div", { class: "new" }, "new"));
}

// A row of the tree: what was on the left, what is on the right.
function halves(node) {
  const was = node.m === "added" ? null : node.was || node;
  const is = node.m === "removed" ? null : node;
  const left = was ? saying(was, node.was ? node : null, "del") : [];
  const right = is ? saying(is, node.was || null, "ins") : [];
  const inside = !node.m && changes(node) ? sign("inside") : null;
  return [
    make("div", { class: "old" }, node.m && was ? sign(node.m) : inside, ...(is ? left : [make("del", null, ...left)])),
    make("div", { class: "new" }, node.m && is ? sign(node.m) : inside && inside.cloneNode(true),
        ...(was ? right : [make("ins", null, ...right)]))
  ];
}

// A difference; on the page of the component that it is about it leads nowhere.
function difference(one, here) {
  const at = [place(one.before), place(one.after)].filter(each => each);
  return make("li", null, sign(one.m),
      one.id && !here ? make("a", { href: link(one.id) }, one.text) : one.text,
      ...one.shown.map(shown => make("div", null, make("div", { class: "breaks" }, shown.why),
          shown.message ? make("details", null, make("summary", null, "a message that shows it"),
              shown.where ? make("p", { class: "quiet" }, shown.where) : "", make("pre", { tabindex: "0" }, shown.message)) : "")),
      one.breaks ? make("div", { class: "breaks" }, "breaks " + one.breaks) : "",
      make("div", { class: "quiet" }, ...at.flatMap((each, i) => i ? [" → ", each] : [each])));
}

function differences(title, all, here) {
  return all.length ? [make("h3", null, title + " (" + all.length + ")"),
    make("ul", { class: "differences" }, ...all.slice(0, 500).map(one => difference(one, here))),
    all.length > 500 ? make("p", { class: "quiet" }, "the first 500; the others stand at their components") : ""] : [];
}

function comparedOverview() {
  const all = compared.differences;
  return make("article", null, make("h2", null, compared.summary + "."),
      make("ul", { class: "readers" }, ...Object.entries(compared.readers).map(([reader, count]) => make("li", null,
          make("b", { class: count ? "bad" : "" }, count ? String(count) : "nothing"), "breaks for " + reader))),
      ...differences("Breaks something", all.filter(one => one.breaking)),
      ...differences("Breaks nothing", all.filter(one => !one.breaking)),
      ...(compared.renames ? [make("h3", null, "Probably renamed"), make("p", null, "These rules keep the names in the code."),
        make("pre", { tabindex: "0" }, compared.renames)] : []),
      make("h3", null, "Documents"), make("ul", null, ...data.documents.map((one, number) =>
        make("li", null, make("a", { href: link("document/" + number + "/1") }, one.side + " " + one.name)))));
}

// What is said of a component otherwise, beside its structure.
function otherwise(one) {
  if (!one.was) {
    return [];
  }
  const said = [["name", one.was.name, one.name], ["documentation", one.was.about, one.about],
    ["what it is", (one.was.traits || []).join("; "), (one.traits || []).join("; ")]]
      .filter(([, was, is]) => (was || "") !== (is || ""));
  return said.length ? [make("table", null, make("thead", null, make("tr", null, ...["", "old", "new"].map(name => make("th", null, name)))),
      make("tbody", null, ...said.map(([what, was, is]) => make("tr", null, make("th", { scope: "row" }, what),
          make("td", null, make("del", null, was || "nothing")), make("td", null, make("ins", null, is || "nothing"))))))] : [];
}

function differencesOf(one) {
  return differences("What is different", compared.differences.filter(each => each.id === one.id), true);
}

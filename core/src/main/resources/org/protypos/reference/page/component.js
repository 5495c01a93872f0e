"use strict";
// What is shown of one component, of a document, and of the contract as a whole.
// Code in several languages.
function remembered() {
  try {
    return localStorage.getItem("language");
  } catch (e) {
    return null;
  }
}
function remember(name) {
  try {
    localStorage.setItem("language", name);
  } catch (e) {
    // Who keeps nothing chooses again.
  }
}
function code(one) {
  if (!one.code) {
    return null;
  }
  const text = make("pre", { class: "signature" });
  const tabs = make("div", { class: "tabs", role: "tablist" });
  const choose = name => {
    text.textContent = one.code[data.languages.indexOf(name)];
    tabs.querySelectorAll("button").forEach(button =>
      button.setAttribute("aria-selected", String(button.textContent === name)));
  };
  const known = data.languages.filter((name, i) => one.code[i]);
  known.forEach(name => tabs.append(make("button", { role: "tab", onclick: () => {
    remember(name);
    choose(name);
  } }, name)));
  choose(known.includes(remembered()) ? remembered() : known[0]);
  return make("div", null, tabs, text);
}

// Findings stand with the component that begins last before them.
const findingsOf = new Map();
function assign() {
  (data.findings || []).forEach(finding => {
    let best = null;
    components.forEach(one => {
      if (finding.at && one.at && one.at[0] === finding.at[0] && one.at[1] <= finding.at[1]
          && (!best || best.at[1] < one.at[1])) {
        best = one;
      }
    });
    const key = best ? best.id : "";
    findingsOf.set(key, (findingsOf.get(key) || []).concat(finding));
  });
}
const finding = one => make("div", { class: "finding" }, make("b", null, one.severity + ": "), one.message,
    one.cure ? make("div", { class: "quiet" }, one.cure) : null, place(one.at));

function component(one) {
  const page = make("article", { class: "component" },
      make("h2", null, one.name, " ", make("span", { class: "kind" }, one.kind + (one.within ? " of " + one.within : ""))),
      make("p", { class: "quiet" }, one.namespace && !one.within ? one.namespace + "  " : "", place(one.before), one.before ? " → " : "", place(one.at)),
      ...otherwise(one),
      one.about && !(one.was && one.was.about !== one.about) ? make("p", null, one.about) : null,
      one.traits ? make("p", null, one.traits.join("; ") + " ", one.base ? make("a", { href: link(one.base) }, "→") : "") : null);
  (findingsOf.get(one.id) || []).forEach(each => page.append(finding(each)));
  if (data.tried && one.kind === "operation") {
    page.append(make("p", null, make("a", { href: data.tried + "#of=" + encodeURIComponent(one.id) }, "Try it")));
  }
  if (compared) {
    page.append(...differencesOf(one));
  }
  if (one.rules) {
    page.append(make("ul", { class: "rules" }, ...one.rules.map(rule => make("li", null, ruled(rule),
        make("span", { class: "quiet" }, " " + rule.where)))));
  }
  const inCode = code(one);
  if (inCode) {
    page.append(inCode);
  }
  const nodes = one.kind === "type" ? contentOf(one.id, []) : one.own || [];
  if (nodes.length) {
    page.append(make("h3", null, "Structure"), tree(nodes, one.kind === "operation" ? 4 : 2));
    const drawn = one.kind === "type" || one.kind === "element" ? picture(one) : null;
    if (drawn) {
      page.append(make("h3", null, "Picture"), drawn);
    }
  }
  const relatives = one.kind === "type" ? family(one) : null;
  if (relatives) {
    page.append(make("h3", null, "Family"), relatives);
  }
  if (one.uses) {
    page.append(make("h3", null, "Used by"), make("table", null, make("tbody", null, ...one.uses.slice(0, 500).map(use =>
      make("tr", null, make("td", null, titled(components[use[0]])), make("td", null, use[1])))),
    one.uses.length > 500 ? make("caption", null, "the first 500 of " + one.uses.length) : null));
  }
  Object.entries(one.examples || {}).forEach(([title, text]) => page.append(
      make("details", null, make("summary", null, title), make("pre", null, text))));
  return page;
}

function overview() {
  const page = make("article", null);
  data.services.forEach(service => {
    page.append(make("h2", null, service.name, " ", make("span", { class: "kind" }, "service")),
        service.about ? make("p", null, service.about) : "",
        make("table", null,
            make("thead", null, make("tr", null, ...["port", "speaks", "address", "asks for"].map(name => make("th", null, name)))),
            make("tbody", null, ...service.ports.map(port => make("tr", null, make("td", null, ...wrappable(port.name)),
                make("td", null, port.speaks), make("td", { class: "mono" }, port.address),
                make("td", null, (port.asks || []).join(", ")))))));
  });
  const operations = components.filter(one => one.kind === "operation");
  if (operations.length) {
    page.append(make("h3", null, "Operations"), make("table", null, make("tbody", null, ...operations.map(one =>
      make("tr", null, make("td", null, titled(one)), make("td", null, one.about || ""))))));
  }
  const counts = KINDS.map(kind => [kind, components.filter(one => one.kind === kind).length]).filter(one => one[1]);
  page.append(make("h3", null, "In it"), make("p", null, counts.map(one => one[1] + " " + one[0] + (one[1] === 1 ? "" : "s")).join(", ")));
  page.append(make("h3", null, "Documents"), make("ul", null, ...data.documents.map((one, number) =>
    make("li", null, make("a", { href: link("document/" + number + "/1") }, one.name)))));
  if (data.findings.length) {
    page.append(make("h3", null, "Findings"), ...data.findings.slice(0, 100).map(finding));
  }
  return page;
}

function source(number, line) {
  const one = data.documents[number];
  const text = make("pre", { class: "source", tabindex: "0" });
  const lines = one.text.split(/\r\n?|\n/);
  // A long document is shown around the line that was asked for.
  const from = lines.length > 4000 ? Math.max(0, line - 1000) : 0;
  lines.slice(from, from + 4000).forEach((content, i) => text.append(make("span",
      { "data-line": from + i + 1, class: from + i + 1 === line ? "here" : null }, content)));
  const page = make("article", null, make("h2", null, one.name), make("p", { class: "quiet" },
      lines.length + " lines" + (lines.length > 4000 ? ", from " + (from + 1) + " on" : "")), text);
  setTimeout(() => {
    const here = text.querySelector(".here");
    if (here) {
      here.scrollIntoView({ block: "center" });
    }
  });
  return page;
}

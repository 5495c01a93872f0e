"use strict";
(() => {
  const data = JSON.parse(document.getElementById("data").textContent);
  const main = document.getElementById("content");
  const list = document.getElementById("list");
  const search = document.getElementById("search");
  const found = document.getElementById("found");
  const components = data.components;
  const byId = new Map(components.map((one, number) => [one.id, number]));
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

  const link = id => "#" + encodeURIComponent(id);

  function titled(one) {
    return make("span", null, make("a", { href: link(one.id) }, one.name), " ", make("span", { class: "kind" },
        one.kind + (one.within ? " of " + one.within : "")));
  }

  function place(at) {
    if (!at) {
      return null;
    }
    const name = data.documents[at[0]].name;
    return make("a", { href: link("document/" + at[0] + "/" + at[1]), class: "mono" }, name + ":" + at[1]);
  }

  // What is written where, for who searches.
  let texts = null;
  function labels(nodes) {
    return (nodes || []).map(node => node.n + " " + labels(node.c)).join(" ");
  }
  function searched() {
    if (!texts) {
      texts = components.map(one => [one.name.toLowerCase(),
        (labels(one.own) + " " + (one.about || "") + " " + (one.traits || []).join(" ")).toLowerCase()]);
    }
    return texts;
  }

  function matches(words) {
    const all = searched();
    const ranked = [];
    for (let i = 0; i < all.length; i++) {
      const [name, rest] = all[i];
      if (words.every(word => name.includes(word) || rest.includes(word))) {
        const rank = name === words[0] ? 0 : name.startsWith(words[0]) ? 1 : name.includes(words[0]) ? 2 : 3;
        ranked.push([rank, i]);
      }
    }
    ranked.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
    return ranked.map(one => components[one[1]]);
  }

  function fill() {
    const words = search.value.toLowerCase().split(/\s+/).filter(word => word);
    const hits = words.length ? matches(words) : components;
    list.replaceChildren();
    let shown = 0;
    const current = decodeURIComponent(location.hash.slice(1));
    for (const kind of words.length ? [null] : KINDS) {
      const some = kind ? hits.filter(one => one.kind === kind) : hits;
      if (kind && some.length && shown < MOST_LISTED) {
        list.append(make("li", { class: "group" }, kind + "s"));
      }
      for (const one of some.slice(0, MOST_LISTED - shown)) {
        list.append(make("li", null, make("a", { href: link(one.id), "aria-current": one.id === current ? "page" : null },
            one.name, ...(words.length ? [" ", make("span", { class: "kind" }, one.kind)] : []))));
        shown++;
      }
    }
    found.textContent = words.length ? hits.length + " found" + (shown < hits.length ? ", the first " + shown + " listed" : "")
        : shown < hits.length ? "the first " + shown + " of " + hits.length + "; search for more" : "";
  }

  // Structure.
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

  function row(node, level, budget) {
    const more = inside(node);
    const item = make("li", null);
    const label = node.r ? make("a", { href: link(node.r), class: "label" }, node.n) : make("span", { class: "label" }, node.n);
    const below = make("ul", null);
    let filled = false;
    const button = more.length ? make("button", { "aria-expanded": "false", "aria-label": "content of " + node.n,
      onclick: () => open(button.getAttribute("aria-expanded") !== "true", { left: MOST_OPEN }, 0) }, "▸") : make("span", { class: "no" });
    function open(wanted, more2, levels) {
      if (wanted && !filled) {
        filled = true;
        more.forEach(child => below.append(row(child, levels, more2)));
      }
      below.hidden = !wanted;
      button.setAttribute("aria-expanded", String(wanted));
      button.textContent = wanted ? "▾" : "▸";
    }
    item.append(button, label,
        node.t ? make("span", { class: "type" }, node.t) : "",
        node.o ? make("span", { class: "occurs" }, node.o) : "",
        node.d ? make("span", { class: "said" }, node.d) : "",
        node.a ? make("p", { class: "about" }, node.a) : "", below);
    below.hidden = true;
    if (more.length && level > 0 && budget.left > more.length) {
      budget.left -= more.length;
      open(true, budget, level - 1);
    }
    return item;
  }

  function tree(nodes, levels) {
    const budget = { left: MOST_OPEN };
    const all = make("ul", null);
    nodes.forEach(node => all.append(row(node, levels, budget)));
    return make("div", { class: "tree" }, all);
  }

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
        node.text = cut(node.n + (node.t ? ": " + node.t : "") + (node.o && node.o !== "1" ? "  " + node.o : ""));
        return { w: node.text.length * 7.3 + 18, h: 24 };
      }
      const parts = (node.c || []).map(child => child.size = measure(child));
      return { w: Math.max(120, ...parts.map(part => part.w)) + 24, h: parts.reduce((sum, part) => sum + part.h + 6, 28) };
    }
    function draw(node, x, y, size) {
      const group = GROUPS.includes(node.k);
      const several = node.o && /n$|\.\.([2-9]|\d\d)|^[2-9]|^\d\d/.test(node.o);
      const kind = node.k === "CHOICE" ? "shape choice" : group ? "shape" : "";
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
    const copy = nodes => (nodes || []).slice(0, 40).map(node => ({ k: node.k, n: node.n, t: node.t, o: node.o, c: copy(node.c) }));
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
    data.findings.forEach(finding => {
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
        make("p", { class: "quiet" }, one.namespace && !one.within ? one.namespace + "  " : "", place(one.at)),
        one.about ? make("p", null, one.about) : null,
        one.traits ? make("p", null, one.traits.join("; ") + " ", one.base ? make("a", { href: link(one.base) }, "→") : "") : null);
    (findingsOf.get(one.id) || []).forEach(each => page.append(finding(each)));
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
    const family = (one.uses || []).filter(use => use[1] === "extends it" || use[1] === "restricts it");
    if (family.length && one.kind === "type") {
      page.append(make("h3", null, "Derived from it"), make("ul", null,
          ...family.map(use => make("li", null, titled(components[use[0]])))));
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
              make("tbody", null, ...service.ports.map(port => make("tr", null, make("td", null, port.name),
                  make("td", null, port.speaks), make("td", { class: "mono" }, port.address),
                  make("td", null, port.asks.join(", ")))))));
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

  function show() {
    let id = "";
    try {
      id = decodeURIComponent(location.hash.slice(1));
    } catch (e) {
      id = location.hash.slice(1);
    }
    const asked = /^document\/(\d+)\/(\d+)$/.exec(id);
    let page;
    if (asked && data.documents[asked[1]]) {
      page = source(Number(asked[1]), Number(asked[2]));
    } else if (byId.has(id)) {
      page = component(components[byId.get(id)]);
    } else {
      page = overview();
      if (id && id !== "content") {
        page.prepend(make("p", { class: "finding" }, "There is nothing called " + id + " in this contract."));
      }
    }
    main.replaceChildren(page);
    window.scrollTo(0, 0);
    list.querySelectorAll("a").forEach(a => {
      if (a.getAttribute("href") === link(id)) {
        a.setAttribute("aria-current", "page");
      } else {
        a.removeAttribute("aria-current");
      }
    });
    document.title = (byId.has(id) ? components[byId.get(id)].name + " – " : "") + document.querySelector("h1").textContent;
  }

  search.addEventListener("input", fill);
  search.addEventListener("keydown", event => {
    if (event.key === "Escape") {
      search.value = "";
      fill();
    } else if (event.key === "ArrowDown" || event.key === "Enter") {
      const first = list.querySelector("a");
      if (first) {
        event.preventDefault();
        if (event.key === "Enter") {
          location.hash = first.getAttribute("href");
        } else {
          first.focus();
        }
      }
    }
  });
  list.addEventListener("keydown", event => {
    const all = [...list.querySelectorAll("a")];
    const at = all.indexOf(document.activeElement);
    if (event.key === "ArrowDown" && at < all.length - 1) {
      event.preventDefault();
      all[at + 1].focus();
    } else if (event.key === "ArrowUp") {
      event.preventDefault();
      (at > 0 ? all[at - 1] : search).focus();
    }
  });
  document.addEventListener("keydown", event => {
    if (event.key === "/" && document.activeElement !== search && !event.ctrlKey && !event.metaKey && !event.altKey) {
      event.preventDefault();
      search.focus();
      search.select();
    }
  });
  // On paper the whole contract is a document with a table of contents; of a very large one what is shown is printed.
  window.addEventListener("beforeprint", () => {
    if (location.hash.length < 2 && components.length <= MOST_PRINTED) {
      main.append(make("section", { id: "whole" }, make("h2", null, "Contents"),
          make("ol", null, ...components.map(one => make("li", null, titled(one)))), ...components.map(component)));
    }
  });
  window.addEventListener("afterprint", () => {
    const whole = document.getElementById("whole");
    if (whole) {
      whole.remove();
    }
  });
  window.addEventListener("hashchange", show);
  assign();
  fill();
  show();
})();

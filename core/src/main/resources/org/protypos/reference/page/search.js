"use strict";
// The list of components, and the search in it.
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

// What is listed below which word: by kinds, of two contracts what has changed before the rest; what is searched for as it was found.
function sections(hits, isSearch) {
  if (isSearch) {
    return [["", hits]];
  }
  const shown = compared ? hits.filter(one => one.m) : hits;
  return KINDS.map(kind => [kind + "s", shown.filter(one => one.kind === kind)])
      .concat(compared ? [["as they were", hits.filter(one => !one.m)]] : []);
}

function fill() {
  const words = search.value.toLowerCase().split(/\s+/).filter(word => word);
  const hits = words.length ? matches(words) : components;
  list.replaceChildren();
  let shown = 0;
  const current = decodeURIComponent(location.hash.slice(1));
  for (const [title, some] of sections(hits, words.length > 0)) {
    if (title && some.length && shown < MOST_LISTED) {
      list.append(make("li", { class: "group" }, title));
    }
    for (const one of some.slice(0, MOST_LISTED - shown)) {
      list.append(make("li", null, make("a", { href: link(one.id), "aria-current": one.id === current ? "page" : null },
          sign(one.m || (compared && isTouched(one) ? "inside" : null)), ...wrappable(one.name), ...(words.length || title === "as they were" ? [" ", make("span", { class: "kind" }, one.kind)] : []))));
      shown++;
    }
  }
  found.textContent = words.length ? hits.length + " found" + (shown < hits.length ? ", the first " + shown + " listed" : "")
      : shown < hits.length ? "the first " + shown + " of " + hits.length + "; search for more" : "";
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

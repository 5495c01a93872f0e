"use strict";
// Which part is shown, and what is printed.
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
    page = compared ? comparedOverview() : overview();
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
if (data.tried) {
  document.getElementById("beside").append(make("p", null, make("a", { href: data.tried }, "Requests to fill in and send")));
}
assign();
fill();
show();

// What keeps somebody from reading or using a page: a list of complaints, empty when there is none (WCAG 2.1, level AA, as far as a
// program can tell).
const complaints = [];
const told = (what, element) => complaints.push(what + ": " + element.outerHTML.slice(0, 120));
const shown = element => element.checkVisibility({ checkOpacity: true, checkVisibilityCSS: true });
const named = element => (element.getAttribute("aria-label") || element.getAttribute("title") || element.textContent).trim()
    || [...(element.labels || [])].some(label => label.textContent.trim());

if (!document.documentElement.lang) {
  complaints.push("the page says no language");
}
if (!document.title.trim()) {
  complaints.push("the page has no title");
}
if (document.querySelectorAll("main").length !== 1) {
  complaints.push("the page has not one main part");
}
const ids = new Set();
document.querySelectorAll("[id]").forEach(element => {
  if (ids.has(element.id)) {
    told("an id that something else has", element);
  }
  ids.add(element.id);
});
document.querySelectorAll("[aria-controls], [aria-labelledby], [aria-describedby], label[for]").forEach(element => {
  ["aria-controls", "aria-labelledby", "aria-describedby", "for"].forEach(name => {
    (element.getAttribute(name) || "").split(/\s+/).filter(id => id && !document.getElementById(id))
        .forEach(id => told("it refers to " + id + ", which is not there", element));
  });
});
document.querySelectorAll("button, a[href], input, select, textarea, summary, [role=img], [role=tab], img").forEach(element => {
  if (shown(element) && !named(element)) {
    told("it has no name", element);
  }
});
document.querySelectorAll("[tabindex]").forEach(element => {
  if (Number(element.getAttribute("tabindex")) > 0) {
    told("it comes out of turn", element);
  }
});
document.querySelectorAll("[role=tab]").forEach(element => {
  if (!element.closest("[role=tablist]") || !element.hasAttribute("aria-selected")) {
    told("a tab of no list, or of which nobody knows whether it is chosen", element);
  }
});
document.querySelectorAll("ul, ol").forEach(list => {
  [...list.children].filter(child => child.localName !== "li").forEach(child => told("no item in a list", child));
});
document.querySelectorAll("th").forEach(element => {
  if (!element.closest("thead") && !element.hasAttribute("scope")) {
    told("a heading of neither row nor column", element);
  }
});
let level = 0;
document.querySelectorAll("h1, h2, h3, h4, h5, h6").forEach(element => {
  if (shown(element)) {
    const own = Number(element.localName[1]);
    if (own > level + 1) {
      told("a heading that skips a level", element);
    }
    level = own;
  }
});
document.querySelectorAll("*").forEach(element => {
  const style = getComputedStyle(element);
  const scrolls = /auto|scroll/.test(style.overflowX + style.overflowY)
      && (element.scrollWidth > element.clientWidth + 1 || element.scrollHeight > element.clientHeight + 1);
  if (scrolls && shown(element) && element.tabIndex < 0 && !element.querySelector("a[href], button, input, select, textarea, [tabindex]")) {
    told("it scrolls, and no key does it", element);
  }
});

// Contrast of text (section 1.4.3).
function channels(color) {
  const parts = color.match(/[\d.]+/g).map(Number);
  return parts.length > 3 ? parts : parts.concat(1);
}
function over(front, back) {
  return [0, 1, 2].map(i => front[i] * front[3] + back[i] * (1 - front[3])).concat(1);
}
function ground(element) {
  const layers = [];
  for (let around = element; around; around = around.parentElement) {
    layers.push(channels(getComputedStyle(around).backgroundColor));
  }
  const canvas = matchMedia("(prefers-color-scheme: dark)").matches ? [18, 18, 18, 1] : [255, 255, 255, 1];
  return layers.reverse().reduce((below, layer) => over(layer, below), canvas);
}
function light(color) {
  const [r, g, b] = color.slice(0, 3).map(part => part / 255).map(part => part <= 0.03928 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4);
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}
const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
const seen = new Set();
while (texts.nextNode()) {
  const element = texts.currentNode.parentElement;
  if (!texts.currentNode.textContent.trim() || seen.has(element) || !shown(element) || element.closest("svg, script, style, noscript, :disabled")) {
    continue;
  }
  seen.add(element);
  const style = getComputedStyle(element);
  const back = ground(element);
  const [a, b] = [light(over(channels(style.color), back)), light(back)];
  const contrast = (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
  const size = parseFloat(style.fontSize);
  const large = size >= 24 || size >= 18.66 && Number(style.fontWeight) >= 700;
  if (contrast < (large ? 3 : 4.5)) {
    told("contrast " + contrast.toFixed(2) + " of " + style.color + " on " + back.slice(0, 3).map(Math.round), element);
  }
}
return complaints;

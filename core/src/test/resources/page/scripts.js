// What single functions of the page's scripts give: a list of what is otherwise than it should be.
const wrong = [];
function same(what, is, wanted) {
  if (JSON.stringify(is) !== JSON.stringify(wanted)) {
    wrong.push(what + " is " + JSON.stringify(is) + " and not " + JSON.stringify(wanted));
  }
}
const texts = nodes => nodes.map(node => typeof node === "string" ? node : "|");

same("a name in words", texts(wrappable("lengthInMetres")), ["length", "|", "In", "|", "Metres"]);
same("a name with dots", texts(wrappable("a.b_c")), ["a.", "|", "b_", "|", "c"]);
same("a name in capitals", texts(wrappable("URI")), ["URI"]);
same("an element without attributes", make("p", { id: null, hidden: false, title: "t", "data-x": true }, "<b>", null, "").outerHTML,
    "<p title=\"t\" data-x=\"\">&lt;b&gt;</p>");

const names = found => found.map(one => one.kind + " " + one.name);
same("the exact name first", names(matches(["berth"]))[0], "type Berth");
same("then what begins with it", names(matches(["berth"]))[1], "type BerthOffer");
same("all words have to be there", names(matches(["yacht", "owner"])), ["type Yacht"]);
same("nothing for nonsense", names(matches(["nothing", "like", "it"])), []);
same("what is searched for has no kinds", sections(components, true).length, 1);
same("kinds in their order", sections(components, false).map(section => section[0]).slice(0, 3), ["operations", "elements", "types"]);

const yacht = components.find(one => one.name === "Yacht");
same("what is inherited comes first", contentOf(yacht.id, []).map(node => node.n).slice(0, 2), ["@callSign", "name"]);
same("nothing of what is not there", contentOf("~nothing", []), []);
const circle = { id: "~a", kind: "type", base: "~b", own: [] };
const other = { id: "~b", kind: "type", base: "~a", own: [{ k: "ELEMENT", n: "x" }] };
byId.set("~a", components.push(circle) - 1);
byId.set("~b", components.push(other) - 1);
same("a circle ends", contentOf("~a", []).map(node => node.n), ["x"]);
components.length -= 2;
byId.delete("~a");
byId.delete("~b");

const drawn = picture({ name: "Choice", kind: "type", own: [{ k: "CHOICE", n: "one of", o: "0..n", c: [
  { k: "ELEMENT", n: "left", t: "int", o: "1" }, { k: "ELEMENT", n: "right", o: "0..1" }] }] });
same("what is in a picture", [...drawn.querySelectorAll("text")].map(text => text.textContent),
    ["Choice", "one of  0..n", "left: int", "right  0..1"]);
same("what repeats has a box behind it", drawn.querySelectorAll("rect.choice").length, 2);
const head = components.push({ id: "{}mark", name: "mark", kind: "element" }) - 1;
components.push({ id: "{}buoy", name: "buoy", kind: "element", uses: [[head + 2, "stands for it"]] }, { id: "{}bell", name: "bell", kind: "element" });
components[head].uses = [[head + 1, "stands for it"]];
components.slice(head).forEach((one, i) => byId.set(one.id, head + i));
same("what may stand in its place is in its place", [...picture({ name: "Chart", kind: "type", own: [
  { k: "ELEMENT", n: "mark", t: "string", o: "1", r: "{}mark" }] }).querySelectorAll("text")].map(text => text.textContent),
    ["Chart", "mark or in its place", "mark: string", "buoy", "bell"]);
components.splice(head).forEach(one => byId.delete(one.id));
same("no picture of nothing", picture({ name: "Empty", kind: "type", own: [] }), null);
return wrong;

// One drawn pixel after the other, and the class that is said of each.
const drawn = JSON.parse(document.getElementById("drawn").textContent);
const kept = "chalcedony truth " + drawn.table + " " + drawn.pixels.map(p => p.x + "," + p.y).join(" ");
const classes = drawn.classes.slice();
let said = drawn.pixels.map(() => null), at = 0;

function know(name) {
  return classNamed(name, classes).name;
}
function field(text) {
  return /[",\r\n]|^\s|\s$/.test(text) ? '"' + text.replaceAll('"', '""') + '"' : text;
}
function table() {
  const rows = drawn.pixels.map((p, i) =>
    [i + 1, p.x, p.y, drawn.drawn, p.stratum ?? "", said[i] || ""].map(v => field(String(v))).join(","));
  return ["number,x,y,drawn,stratum,class", ...rows].join("\r\n") + "\r\n";
}
// Shows so many pixels of a cut-out, its pixel of interest in the middle where there is room.
function show(id, pixel, seen) {
  const view = part(id), side = view.clientWidth || 320;
  const across = Math.min(seen, Math.max(pixel.wide, pixel.high)), zoom = side / across;
  const from = (middle, size) => Math.min(Math.max(middle + 0.5 - across / 2, 0), Math.max(size - across, 0));
  const left = from(pixel.left, pixel.wide), top = from(pixel.top, pixel.high);
  const image = view.querySelector("img"), mark = view.querySelector("i");
  image.src = pixel.seen;
  image.alt = "the pixel " + pixel.x + "," + pixel.y + " and what lies around it";
  Object.assign(image.style, { width: pixel.wide * zoom + "px", left: -left * zoom + "px", top: -top * zoom + "px" });
  const around = Math.max(zoom, 14), shift = (around - zoom) / 2;
  Object.assign(mark.style, { left: (pixel.left - left) * zoom - shift - 2 + "px",
    top: (pixel.top - top) * zoom - shift - 2 + "px", width: around + 4 + "px", height: around + 4 + "px" });
}
function draw() {
  const pixel = drawn.pixels[at];
  part("where").textContent = "Pixel " + (at + 1) + " of " + drawn.pixels.length + ", at " + pixel.x + "," + pixel.y;
  show("near", pixel, 21);
  show("around", pixel, 1e6);
  listClasses(classes, one => said[at] === one.name, one => say(one.name));
  part("unknown").setAttribute("aria-pressed", said[at] === "");
  const named = said.filter(Boolean).length, untold = said.filter(name => name === "").length;
  part("state").textContent = named + " of " + said.length + " have a class" +
    (untold ? ", " + untold + " cannot be told" : "");
  part("save").href = "data:text/csv;charset=utf-8," + encodeURIComponent(table());
}
function go(to) {
  at = Math.min(Math.max(to, 0), drawn.pixels.length - 1);
  draw();
}
function say(name) {
  said[at] = name;
  remember(kept, said);
  go(at + 1);
}
listenToButtons({ unknown: () => say(""), back: () => go(at - 1), next: () => go(at + 1) });
part("another").addEventListener("submit", event => {
  event.preventDefault();
  const name = part("name").value.trim();
  if (name) say(know(name));
  part("name").value = "";
});
listenToKeys({ ArrowLeft: () => go(at - 1), ArrowRight: () => go(at + 1), 0: () => say("") }, null, key => {
  const one = classes[Number(key) - 1];
  return one && (() => say(one.name));
});
addEventListener("resize", draw);
const before = remembered(kept);
if (Array.isArray(before) && before.length === said.length) said = before;
for (const name of said) if (name) know(name);
go(said.indexOf(null));

// One drawn pixel after the other, and the class that is said of each.
"use strict";
const drawn = JSON.parse(document.getElementById("drawn").textContent);
const part = id => document.getElementById(id);
const kept = "chalcedony truth " + drawn.table + " " + drawn.pixels.map(p => p.x + "," + p.y).join(" ");
const classes = drawn.classes.slice();
let said = drawn.pixels.map(() => null), at = 0;

function keep() {
  try { localStorage.setItem(kept, JSON.stringify(said)); } catch { /* then a closed page forgets */ }
}
function remember() {
  try {
    const before = JSON.parse(localStorage.getItem(kept));
    if (Array.isArray(before) && before.length === said.length) said = before;
  } catch { /* nothing is remembered */ }
  for (const name of said) if (name) know(name);
  at = Math.max(0, said.indexOf(null));
}
function know(name) {
  const same = classes.find(c => c.name.toLowerCase() === name.toLowerCase());
  if (same) return same.name;
  classes.push({ name, color: "" });
  return name;
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
function listClasses() {
  const list = part("classes");
  list.replaceChildren(...classes.map((one, i) => {
    const button = document.createElement("button"), swatch = document.createElement("i");
    button.type = "button";
    swatch.style.background = one.color || "transparent";
    button.append(swatch, one.name);
    if (i < 9) {
      const key = document.createElement("kbd");
      key.textContent = i + 1;
      button.append(key);
    }
    button.setAttribute("aria-pressed", said[at] === one.name);
    button.addEventListener("click", () => say(one.name));
    return button;
  }));
  part("unknown").setAttribute("aria-pressed", said[at] === "");
}
function draw() {
  const pixel = drawn.pixels[at];
  part("where").textContent = "Pixel " + (at + 1) + " of " + drawn.pixels.length + ", at " + pixel.x + "," + pixel.y;
  show("near", pixel, 21);
  show("around", pixel, 1e6);
  listClasses();
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
  keep();
  go(at + 1);
}
part("unknown").addEventListener("click", () => say(""));
part("back").addEventListener("click", () => go(at - 1));
part("next").addEventListener("click", () => go(at + 1));
part("another").addEventListener("submit", event => {
  event.preventDefault();
  const name = part("name").value.trim();
  if (name) say(know(name));
  part("name").value = "";
});
addEventListener("keydown", event => {
  if (event.target.tagName === "INPUT" || event.ctrlKey || event.metaKey || event.altKey) return;
  const number = Number(event.key);
  if (event.key === "ArrowLeft") go(at - 1);
  else if (event.key === "ArrowRight") go(at + 1);
  else if (event.key === "0") say("");
  else if (number >= 1 && number <= classes.length) say(classes[number - 1].name);
});
addEventListener("resize", draw);
remember();
draw();

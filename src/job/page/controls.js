// What pages share that take something from their reader.
"use strict";
const part = id => document.getElementById(id);

// What keys do: `keys` by their names, or what `doneBy(key)` returns; Ctrl Z takes back. Those for a
// field, for the browser, or that press the button which has the focus, are left to them.
function listenToKeys(keys, undo, doneBy = () => undefined) {
  addEventListener("keydown", event => {
    const { key, target } = event, isField = target.tagName === "INPUT" || target.tagName === "TEXTAREA";
    const isUndo = undo && (event.ctrlKey || event.metaKey) && key === "z";
    if (isField || (!isUndo && (event.ctrlKey || event.metaKey || event.altKey))) return;
    if ((key === "Enter" || key === " ") && target.tagName === "BUTTON") return;
    const work = isUndo ? undo : doneBy(key) ?? keys[key];
    if (!work) return;
    event.preventDefault();
    work();
  });
}
function many(n, thing) {
  return n.toLocaleString("en") + " " + thing + (n === 1 ? "" : "s");
}
// The class that is called so, or so but for upper and lower case; one without a color is added where
// there is none.
function classNamed(name, classes) {
  const same = classes.find(c => c.name === name) ??
    classes.find(c => c.name.toLowerCase() === name.toLowerCase());
  if (same) return same;
  classes.push({ name, color: "" });
  return classes[classes.length - 1];
}
// What each button does, by its id.
function listenToButtons(presses) {
  for (const [id, press] of Object.entries(presses)) part(id).addEventListener("click", press);
}
// The link that saves what text() returns then, under the name it has.
function saveByLink(text, type) {
  part("save").addEventListener("click", () => {
    part("save").href = URL.createObjectURL(new Blob([text()], { type }));
  });
}
function swatchOf(color) {
  const swatch = document.createElement("i");
  swatch.style.background = color || "transparent";
  return swatch;
}
function swatchButton(color, text, isPressed, press) {
  const button = document.createElement("button");
  button.type = "button";
  button.append(swatchOf(color), text);
  button.setAttribute("aria-pressed", isPressed);
  button.addEventListener("click", press);
  return button;
}
// A button for each class, with its color, its key and what is noted of it.
function listClasses(classes, isPressed, press, noted = () => "") {
  part("classes").replaceChildren(...classes.map((one, i) => {
    const button = swatchButton(one.color, one.name + noted(one), isPressed(one), () => press(one));
    if (i < 9) {
      const key = document.createElement("kbd");
      key.textContent = i + 1;
      button.append(key);
    }
    return button;
  }));
}
// What the browser remembers under a name; null when it cannot, or knows nothing.
function remembered(name) {
  try { return JSON.parse(localStorage.getItem(name)); } catch { return null; }
}
function remember(name, what) {
  try { localStorage.setItem(name, JSON.stringify(what)); } catch { /* then a closed page forgets */ }
}

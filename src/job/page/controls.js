// What pages share that take something from their reader.
"use strict";
const part = id => document.getElementById(id);

// Whether a key is meant for the page, not for a field or the browser.
function isForPage(event) {
  return event.target.tagName !== "INPUT" && !event.ctrlKey && !event.metaKey && !event.altKey;
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
function swatchButton(color, text, isPressed, press) {
  const button = document.createElement("button"), swatch = document.createElement("i");
  button.type = "button";
  swatch.style.background = color || "transparent";
  button.append(swatch, text);
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

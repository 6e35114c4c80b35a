// A picture on which regions are drawn, the classes they are of, and the file they are saved in.

const begun = JSON.parse(part("begun").textContent);
const size = { width: begun.samples.width, height: begun.samples.height };
const drawing = part("drawing");
const kHints = {
  rectangle: "Drag from corner to corner.",
  polygon: "Click corner after corner, or drag along the edge. A double click or Enter ends it, Backspace takes the last corner back.",
  disc: "Drag from the middle outwards. A click takes one pixel.",
  choose: "Click a region to choose it: a class gives it that class, Delete removes it. Drag it to move it, or one of its corners or the end of its disc to reshape it; drag elsewhere to move the picture.",
};
// What this page remembers is of this picture and the regions it began with.
const kept = "chalcedony outline " + begun.file + " " + fingerprint(part("begun").textContent + part("seen").src);

let state = stateBegun();
let tool = "rectangle", chosen = -1, mapShown = 0, draft = null;

function stateBegun() {
  const { classes, samples } = structuredClone(begun);
  return { regions: regionsOf(samples), classes, current: classes[0]?.name ?? "" };
}
function beginAnew() {
  chosen = -1;
  change(() => {
    state = stateBegun();
    nameColors();
  });
}
// Every class has a color.
function nameColors() {
  for (const one of [...state.classes, ...state.regions]) know(one.name);
}
function undo() {
  if (draft) return end();
  chosen = -1;
  takeBack();
}
// Of the colors for classes the one that is least like those there are; the first where all are.
function farthestColor(others) {
  const codes = color => [1, 3, 5].map(at => parseInt(color.slice(at, at + 2), 16));
  const apart = (a, b) => Math.hypot(...codes(a).map((code, i) => code - codes(b)[i]));
  const nearest = color => Math.min(...others.map(other => apart(color, other)));
  return begun.colors.reduce((best, color) => (nearest(color) > nearest(best) ? color : best));
}
function know(name) {
  const one = classNamed(name, state.classes);
  one.color ||= farthestColor(state.classes.map(c => c.color).filter(Boolean));
  return one.name;
}
// Adds a shape as a region of the current class.
function add(shape) {
  if (!state.current) {
    part("state").textContent = "Name a class first: it says what the region is.";
    part("name").focus();
    return;
  }
  change(() => state.regions.push({ name: state.current, guess: false, ...shape }));
}
// Makes a class the current one, and that of the chosen region.
function take(name) {
  const region = state.regions[chosen];
  state.current = know(name);
  if (!region) {
    remember(kept, state);
    return draw();
  }
  const wasGuess = region.guess;
  change(() => Object.assign(region, { name: state.current, guess: false }));
  if (wasGuess) nextGuess();
}
function renameCurrent(name) {
  if (!state.current || name === state.current) return;
  change(() => {
    const before = state.classes.find(c => c.name === state.current);
    const same = state.classes.find(c => c !== before && c.name.toLowerCase() === name.toLowerCase());
    for (const region of state.regions)
      if (region.name === before.name) region.name = same ? same.name : name;
    if (same) state.classes.splice(state.classes.indexOf(before), 1);
    else before.name = name;
    state.current = same ? same.name : name;
  });
}
function removeChosen() {
  if (!state.regions[chosen]) return;
  const which = chosen, wasGuess = state.regions[chosen].guess;
  chosen = -1;
  change(() => state.regions.splice(which, 1));
  if (wasGuess) nextGuess();
}
function choose(which) {
  chosen = which;
  if (state.regions[which] && !state.regions[which].guess) state.current = state.regions[which].name;
  draw();
}
function nextGuess() {
  const guesses = state.regions.flatMap((region, i) => (region.guess ? [i] : []));
  if (guesses.length === 0) return choose(-1);
  setTool("choose");
  choose(guesses.find(i => i > chosen) ?? guesses[0]);
  lookAt(state.regions[chosen]);
}
function confirmGuess() {
  if (!state.regions[chosen]?.guess) return;
  change(() => { state.regions[chosen].guess = false; });
  nextGuess();
}

function lookAt(region) {
  const { left, top, right, bottom } = boundsOf(region), kAround = 8;
  const across = Math.max(right - left, bottom - top) * kAround;
  setZoom(Math.max(Math.min(stage.clientWidth, stage.clientHeight) / across, wholeZoom()));
  stage.scrollLeft = (left + right) / 2 * zoom - stage.clientWidth / 2;
  stage.scrollTop = (top + bottom) / 2 * zoom - stage.clientHeight / 2;
}
let codes = null;  // of the picture as it is seen
function colorAt([x, y]) {
  const image = part("seen");
  if (!image.complete || image.naturalWidth === 0) return "";
  if (!codes) {
    const canvas = document.createElement("canvas");
    Object.assign(canvas, { width: image.naturalWidth, height: image.naturalHeight });
    const context = canvas.getContext("2d");
    context.drawImage(image, 0, 0);
    codes = context.getImageData(0, 0, canvas.width, canvas.height);
  }
  const cell = (at, of, cells) => Math.min(Math.floor(at / of * cells), cells - 1);
  const at = 4 * (cell(y, size.height, codes.height) * codes.width + cell(x, size.width, codes.width));
  return "#" + [0, 1, 2].map(c => codes.data[at + c].toString(16).padStart(2, "0")).join("");
}

// The class map over the picture: not, half, or alone.
const hasMap = part("map").getAttribute("src") !== "";
const kMapShown = [["false", 0], ["mixed", 0.5], ["true", 1]];
function showMap() {
  const map = part("map");
  if (!hasMap) return;
  mapShown = (mapShown + 1) % kMapShown.length;
  const [pressed, opacity] = kMapShown[mapShown];
  part("show-map").setAttribute("aria-pressed", pressed);
  map.hidden = opacity === 0;
  map.style.opacity = opacity;
}

// What is drawn.
function element(name, attributes) {
  const made = document.createElementNS("http://www.w3.org/2000/svg", name);
  for (const [key, value] of Object.entries(attributes)) made.setAttribute(key, value);
  return made;
}
function outlineOf({ point, radius, rings }) {
  if (point && radius) return ["circle", { cx: point[0], cy: point[1], r: radius }];
  const lines = point ? [rectangleRing(...point.map(Math.floor), ...point.map(v => Math.floor(v) + 1))] : rings;
  return ["path", { d: lines.map(ring => "M" + ring.map(p => p.join(" ")).join("L") + "Z").join("") }];
}
// A line in the color of its class that is seen on any picture.
function drawn(shape, color, kind) {
  const group = element("g", { class: kind }), [name, place] = outlineOf(shape);
  group.append(element(name, { ...place, class: "edge" }), element(name, { ...place, class: "case" }),
    element(name, { ...place, class: "line", stroke: color, fill: color }));
  return group;
}
function colorOf(name) {
  return state.classes.find(c => c.name === name)?.color || "#808080";
}
function drawDraft() {
  drawing.querySelector(".draft")?.remove();
  const shape = draft && draft.shape();
  if (shape) drawing.append(drawn(shape, colorOf(state.current), "draft"));
}
function drawRegions() {
  drawing.replaceChildren(...state.regions.map((region, i) =>
    drawn(region, colorOf(region.name), (region.guess ? "guess " : "") + (i === chosen ? "chosen" : ""))));
  if (tool !== "choose" || !state.regions[chosen]) return;
  const dots = { d: handlesOf(state.regions[chosen]).map(([x, y]) => "M" + x + " " + y + "h0").join("") };
  drawing.append(element("path", { ...dots, class: "handle case" }), element("path", { ...dots, class: "handle dot" }));
}
// Counted once: a region that is moved is another one.
const kPixels = new WeakMap();
function pixelsOf(region) {
  if (!kPixels.has(region)) kPixels.set(region, pixelsIn([region], size));
  return kPixels.get(region);
}
function listRegions() {
  part("regions").replaceChildren(...state.regions.map((region, i) => {
    const item = document.createElement("li");
    item.append(swatchButton(colorOf(region.name), calledIn(region) + ", " + many(pixelsOf(region), "pixel"),
      i === chosen, () => { choose(i); lookAt(region); }));
    return item;
  }));
}
function draw() {
  showTool(tool, state.regions[chosen]?.guess
    ? "Is it " + state.regions[chosen].name + "? Enter says so, a class that it is another, Delete that it is none."
    : kHints[tool]);
  drawRegions();
  drawDraft();
  listRegions();
  listClasses(state.classes, one => one.name === state.current, one => take(one.name), one => {
    const its = state.regions.filter(region => region.name === one.name && !region.guess);
    return its.length ? ", " + many(pixelsIn(its, size), "pixel") + " in " + its.length : "";
  });
  const guesses = state.regions.filter(region => region.guess).length;
  part("guesses").hidden = guesses === 0;
  part("confirm").disabled = !state.regions[chosen]?.guess;
  part("remove").disabled = !state.regions[chosen];
  part("rename").disabled = !state.current;
  part("undo").disabled = past.length === 0;
  part("state").textContent = many(state.regions.length - guesses, "region") +
    (guesses ? ", " + guesses + (guesses === 1 ? " guess" : " guesses") + " to check" : "");
}

// Drawing.
function end() {
  draft = null;
  drawDraft();
}
// Each has shape(), what is drawn so far, and takes the pointer where it moves and is let go: then
// release() tells whether that is all.
function dragged(shapeBetween) {
  return from => {
    let to = from;
    return { shape: () => shapeBetween(from, to), move: at => { to = at; }, release: () => true };
  };
}
const kDrafts = {
  rectangle: dragged((from, to) => isFar(from, to) ? { rings: [rectangleRing(
    Math.floor(Math.min(from[0], to[0])), Math.floor(Math.min(from[1], to[1])),
    Math.ceil(Math.max(from[0], to[0])), Math.ceil(Math.max(from[1], to[1])))] } : null),
  disc: dragged((from, to) => isFar(from, to)
    ? { point: from.map(tenths), radius: Math.max(tenths(Math.hypot(to[0] - from[0], to[1] - from[1])), 0.1) }
    : { point: from.map((v, i) => Math.min(Math.floor(v), [size.width, size.height][i] - 1) + 0.5), radius: 0 }),
  polygon: from => {
    const corners = [from.map(tenths)];
    let to = from, down = true;
    const reach = at => {
      if (isFar(corners[corners.length - 1], at)) corners.push(at.map(tenths));
    };
    return {
      shape: () => {
        const all = down ? corners : [...corners, to.map(tenths)];
        return all.length > 1 ? { rings: [[...all, all[0]]] } : null;
      },
      move: at => {
        to = at;
        if (down) reach(at);
      },
      press: at => {
        down = true;
        reach(at);
      },
      release: () => { down = false; return false; },
      back: () => { corners.pop(); return corners.length > 0; },
      ended: () => corners.length > 2 ? { rings: [[...corners, corners[0]]] } : null,
    };
  },
  choose: (from, event) => {
    const handle = handleAt(from);
    if (handle >= 0) return reshaping(state.regions[chosen], handle);
    const which = state.regions.findLastIndex(region => holds(region, from));
    const movePicture = heldBy(event);
    let by = [0, 0];
    // The region where it is dragged to, if it is.
    const put = () => {
      if (which < 0 || !isFar([0, 0], by)) return null;
      const { left, top, right, bottom } = boundsOf(state.regions[which]);
      return moved(state.regions[which], Math.min(Math.max(by[0], -left), size.width - right),
        Math.min(Math.max(by[1], -top), size.height - bottom));
    };
    return {
      shape: put,
      move: (at, now) => {
        by = [at[0] - from[0], at[1] - from[1]];
        if (which < 0) movePicture(now);
      },
      release: () => {
        const to = put();
        end();
        chosen = which;
        if (to) change(() => { state.regions[which] = to; });
        choose(which);
        return false;
      },
    };
  },
};
// The handle of the chosen region that lies under a pointer; -1 for none.
function handleAt(at) {
  const kGrip = 8;  // screen pixels
  const away = !state.regions[chosen] ? []
    : handlesOf(state.regions[chosen]).map(p => Math.hypot(p[0] - at[0], p[1] - at[1]) * zoom);
  return away.findIndex(one => one <= kGrip && one === Math.min(...away));
}
function reshaping(region, handle) {
  let to = null;
  return {
    shape: () => to && reshaped(region, handle, to),
    move: at => { to = at; },
    release: () => {
      const now = to && reshaped(region, handle, to);
      end();
      if (now) change(() => { state.regions[chosen] = now; });
      return false;
    },
  };
}
function finishPolygon() {
  const shape = draft?.ended?.();
  end();
  if (shape) add(shape);
}
function setTool(name) {
  end();
  tool = name;
  if (name !== "choose") chosen = -1;
  draw();
}
drawing.addEventListener("pointerdown", event => {
  if (event.button !== 0) return;
  event.preventDefault();
  stage.focus({ preventScroll: true });
  drawing.setPointerCapture(event.pointerId);
  const at = positionAt(event);
  if (draft?.press) draft.press(at);
  else draft = kDrafts[tool](at, event);
  drawDraft();
});
drawing.addEventListener("pointermove", event => {
  const at = positionAt(event);
  part("under").textContent = "x " + Math.floor(at[0]) + ", y " + Math.floor(at[1]) + ", " + colorAt(at);
  if (!draft) return;
  draft.move(at, event);
  drawDraft();
});
drawing.addEventListener("pointerup", () => {
  if (!draft?.release()) return;
  const shape = draft.shape();
  end();
  if (shape) add(shape);
});
drawing.addEventListener("pointercancel", end);
drawing.addEventListener("dblclick", finishPolygon);

// Buttons, fields and keys.
listenToTools(setTool);
listenToButtons({
  "show-map": showMap, undo, anew: beginAnew, remove: removeChosen, confirm: confirmGuess, next: nextGuess,
});
part("another").addEventListener("submit", event => {
  event.preventDefault();
  const name = part("name").value.trim().replace(/\?+$/, "");
  if (name && event.submitter?.id === "rename") renameCurrent(name);
  else if (name) take(name);
  part("name").value = "";
});
part("numbers").addEventListener("submit", event => {
  event.preventDefault();
  const shape = shapeOfNumbers(part("place").value, size);
  part("place").setCustomValidity(shape ? "" : "X,Y or X,Y,RADIUS or X,Y,W,H within the picture");
  if (!part("place").reportValidity()) return;
  add(shape);
  part("place").value = "";
});
part("place").addEventListener("input", () => part("place").setCustomValidity(""));
saveByLink(() => samplesText(state.regions, state.classes, size), "application/geo+json");
const kKeys = {
  r: () => setTool("rectangle"), p: () => setTool("polygon"), d: () => setTool("disc"), c: () => setTool("choose"),
  ...kStageKeys, m: showMap, n: nextGuess, Delete: removeChosen,
  Escape: () => { end(); choose(-1); },
  Enter: () => draft ? finishPolygon() : confirmGuess(),
  Backspace: () => {
    if (draft?.back) draft.back() ? drawDraft() : end();
    else removeChosen();
  },
};
listenToKeys(kKeys, undo, key => {
  const one = state.classes[Number(key) - 1];
  return one && (() => take(one.name));
});
nameColors();
part("show-map").hidden = !hasMap;
const before = remembered(kept);
if (Array.isArray(before?.regions) && Array.isArray(before.classes)) state = before;
draw();
showWhole();

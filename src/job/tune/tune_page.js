// A picture, the histograms of its channels, and the limits that are set in them.

const kClick = 3;  // pixels around a click that are meant with it
const kHints = {
  like: "Click or drag over what you mean: all limits are set around its values.",
  in: "Click what is left out and should not be, or drag over it: limits widen until it is taken.",
  out: "Click what is taken and should not be, or drag over it: the end moves that loses least else.",
  move: "Drag to move the picture.",
};
const kept = "chalcedony tune " + begun.stem + " " + fingerprint(part("begun").textContent + part("kinds").textContent);

let state = stateBegun();
let tool = "like", shown = 0, taken = null, marked = null, drag = null;

function setLimits(channel, limits) {
  if (!limits || (limits[0] === null && limits[1] === null)) delete current().limits[channel.name];
  else current().limits[channel.name] = limits;
}

// What is pointed at: how many pixels of each kind.
function kindsIn([left, top], [right, bottom]) {
  const counts = new Map();
  for (let y = Math.max(top, 0); y < Math.min(bottom, size.height); ++y)
    for (let x = Math.max(left, 0); x < Math.min(right, size.width); ++x) {
      const kind = kindOf[y * size.width + x];
      if (kind !== kNoKind) counts.set(kind, (counts.get(kind) ?? 0) + 1);
    }
  return counts;
}
const kDone = {
  like: counts => {
    for (const channel of channels) setLimits(channel, limitsLike(counts, channel));
  },
  in: counts => {
    for (const channel of channels) {
      if (!current().limits[channel.name]) continue;
      const values = valuesToTakeIn(counts, channel);
      if (!values) return channel.name + " has no value there, so a limit of it leaves that out.";
      for (const value of values) {
        const limits = current().limits[channel.name];
        if (limits) setLimits(channel, widenedOrAll(limitsWith(value, limits, channel), limits));
      }
    }
  },
  out: counts => {
    const isOut = new Uint8Array(begun.kinds);
    let some = false;
    for (const kind of counts.keys()) {
      isOut[kind] = 1;
      some ||= taken[kind] === 1;
    }
    if (!some) return "Nothing of it is taken.";
    const cuts = channels.flatMap(channel => cutsOf(channel, current().limits[channel.name], isOut, taken, weights)
      .map(cut => ({ channel, ...cut })));
    if (cuts.length === 0) return "No limit of these channels parts it from what is taken.";
    const best = cuts.reduce((a, b) => (b.lost < a.lost ? b : a));
    setLimits(best.channel, best.limits);
  },
};
// Of one kind its value; of several the ends of what is like them, so that a few that lie under the
// pointer by chance widen nothing. Null when there are none.
function valuesToTakeIn(counts, channel) {
  if (counts.size > 1) return limitsLike(counts, channel);
  const value = channel.values[[...counts.keys()][0]];
  return Number.isNaN(value) ? null : [value];
}
// An arc that grew round the circle into itself is all of it.
function widenedOrAll(now, before) {
  const length = ([low, high]) => around(high - low);
  return now[0] !== null && now[1] !== null && before[0] > before[1] && length(now) < length(before) ? null : now;
}
function point(from, to) {
  const isClick = !isFar(from, to);
  const least = from.map((v, i) => Math.floor(Math.min(v, to[i])) - (isClick && tool === "like" ? kClick : 0));
  const most = from.map((v, i) => Math.floor(Math.max(v, to[i])) + 1 + (isClick && tool === "like" ? kClick : 0));
  const counts = kindsIn(least, most);
  if (counts.size === 0) return;
  let said;
  change(() => { said = kDone[tool](counts); });
  if (said) part("hint").textContent = said;
}

// What is told.
function percentText(share, whole) {
  return (whole ? 100 * share / whole : 0).toFixed(2) + " %";
}
function tell() {
  const inClass = new Float64Array(begun.classes.length + 1), ofClass = inClass.slice();
  for (let k = 0; k < begun.kinds; ++k) {
    ofClass[classOf[k]] += weights[k];
    if (taken[k]) inClass[classOf[k]] += weights[k];
  }
  const counts = pixelsOfLabels();
  part("state").textContent = takenText(counts);
  tellClasses(counts);
  part("shares").replaceChildren(...begun.classes.map(({ name, color }, i) => {
    const item = swatchButton(color, name + " " + percentText(inClass[i + 1], ofClass[i + 1]),
      nameOfKnown(i) === current().name, () => takeLikeKnown(i));
    item.title = many(inClass[i + 1], "pixel") + " of " + ofClass[i + 1].toLocaleString("en");
    item.hidden = ofClass[i + 1] === 0;  // a class that the picture does not have
    return item;
  }));
  part("of").hidden = begun.classes.length === 0;
  const texts = selectionTexts();
  tellPictures();
  part("where").value = texts.join("\n") || "No limit is set yet, so all is taken.";
  part("where").rows = Math.min(Math.max(texts.length, 2), 8);
  part("save").download = part("file").textContent = fileName();
  part("command").textContent = commandText();
  part("command").parentElement.hidden = texts.length === 0;
}
// What the current class takes, and of classes what is left.
function takenText(counts) {
  const all = taken.reduce((sum, is, k) => sum + is * weights[k], 0);
  if (!isMap())
    return percentText(all, counted) + " taken: " + all.toLocaleString("en") + " of " + many(counted, "pixel") +
      (frames.some(({ step }) => step > 1) ? " seen" : "");
  const before = pixelsTakenBefore();
  return current().name + ": " + percentText(all, counted) + " taken" +
    (before ? ", less " + percentText(before, counted) + " that classes before it take" : "") +
    "; " + percentText(counts[0], counted) + " in no class";
}
function draw() {
  findTaken();
  if (!isMap() && !kPaint[shown]) shown = 0;
  paintPicture();
  for (const panel of panels) {
    const limits = current().limits[panel.channel.name] ?? [null, null];
    for (const [i, input] of [panel.low, panel.high].entries())
      if (input !== document.activeElement || input.value !== "") {
        input.value = limits[i] === null ? "" : numberText(limits[i]);
        input.placeholder = numberText([panel.channel.low, panel.channel.high][i]);
        input.setCustomValidity("");
      }
    panel.clear.disabled = !current().limits[panel.channel.name];
    paintHistogram(panel);
  }
  showTool(tool, kHints[tool]);
  part("undo").disabled = past.length === 0;
  part("show").firstChild.data = kShown[shown];
  tell();
}

// Pointing in the picture.
function showFrame(from, to) {
  const frame = part("frame"), [left, top] = from.map((v, i) => Math.min(v, to[i]) * zoom);
  frame.hidden = false;
  Object.assign(frame.style, { left: left + "px", top: top + "px",
    width: Math.abs(to[0] - from[0]) * zoom + "px", height: Math.abs(to[1] - from[1]) * zoom + "px" });
}
function markAt(at) {
  const [x, y] = at.map((v, i) => Math.min(Math.floor(v), [size.width, size.height][i] - 1));
  const kind = kindOf[y * size.width + x], frame = frameAt(x, y);
  marked = kind === kNoKind ? null : kind;
  panels.forEach(paintHistogram);
  part("under").textContent = !frame ? "" : placeText(frame, x, y) + (marked === null ? ": does not count"
    : ", " + channels.map(channel => channel.name + " " + (Number.isNaN(channel.values[kind]) ? "none"
      : numberText(toStep(channel.values[kind], channel.step, 0)))).join(", "));
}
seen.addEventListener("pointerdown", event => {
  if (event.button !== 0) return;
  event.preventDefault();
  stage.focus({ preventScroll: true });
  seen.setPointerCapture(event.pointerId);
  drag = { from: positionAt(event), movePicture: heldBy(event) };
});
seen.addEventListener("pointermove", event => {
  const at = positionAt(event);
  if (drag && tool === "move") drag.movePicture(event);
  else if (drag && isFar(drag.from, at)) showFrame(drag.from, at);
  markAt(at);
});
function endDrag() {
  drag = null;
  part("frame").hidden = true;
}
seen.addEventListener("pointerup", event => {
  const from = drag?.from;
  endDrag();
  if (from && tool !== "move") point(from, positionAt(event));
});
seen.addEventListener("pointercancel", endDrag);
seen.addEventListener("pointerleave", () => {
  marked = null;
  panels.forEach(paintHistogram);
});

// Buttons and keys.
function setTool(name) {
  tool = name;
  draw();
}
function showOtherwise() {
  shown = (shown + 1) % (isMap() ? kShown : kPaint).length;
  draw();
}
listenToTools(setTool);
listenToButtons({ undo: takeBack, anew: () => change(() => { state = stateBegun(); }), show: showOtherwise, remove: removeClass, up: moveClassUp });
listenToKeys({ l: () => setTool("like"), i: () => setTool("in"), o: () => setTool("out"), v: () => setTool("move"),
  m: showOtherwise, ...kStageKeys }, takeBack,
  key => isMap() && state.classes[key - 1] && (() => chooseClass(key - 1)) || undefined);
part("where").addEventListener("focus", () => part("where").select());
saveByLink(fileText, "application/yaml");
addEventListener("resize", () => panels.forEach(paintHistogram));
const before = remembered(kept);
if (before?.classes) state = before;
draw();
showWhole();

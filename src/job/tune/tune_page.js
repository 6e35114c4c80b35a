// A picture, the histograms of its channels, and the limits that are set in them.

const begun = JSON.parse(part("begun").textContent);
const size = { width: begun.width, height: begun.height };
const kBins = 120, kClick = 3;  // bins of a histogram; pixels around a click that are meant with it
const kHints = {
  like: "Click or drag over what you mean: all limits are set around its values.",
  in: "Click what is left out and should not be, or drag over it: limits widen until it is taken.",
  out: "Click what is taken and should not be, or drag over it: the end moves that loses least else.",
  move: "Drag to move the picture.",
};
const kShown = ["Rest dimmed", "Taken alone", "As a mask", "Picture"];
const kNoKind = 0xffffff;

function bytesOf(id) {
  const text = atob(part(id).textContent), bytes = new Uint8Array(text.length);
  for (let i = 0; i < bytes.length; ++i) bytes[i] = text.charCodeAt(i);
  return bytes;
}
const values = new Float32Array(bytesOf("values").buffer), rgb = bytesOf("rgb"), classOf = bytesOf("classes");
const kindOf = (bytes => Uint32Array.from({ length: bytes.length / 3 },
  (_, i) => bytes[3 * i] | bytes[3 * i + 1] << 8 | bytes[3 * i + 2] << 16))(bytesOf("kinds"));
const weights = new Uint32Array(begun.kinds);
for (const kind of kindOf) if (kind !== kNoKind) ++weights[kind];
const counted = weights.reduce((sum, n) => sum + n, 0);
const channels = begun.channels.map((channel, c) => withAxis({ ...channel, values: values.subarray(c * begun.kinds, (c + 1) * begun.kinds) }));
const kept = "chalcedony tune " + begun.file + " " + fingerprint(part("begun").textContent + part("kinds").textContent);

let state = stateBegun();
let tool = "like", shown = 0, taken = null, marked = null, drag = null;

// Its range on the page, the bin of each kind, and what is in the bins.
function withAxis(channel) {
  let low = Infinity, high = -Infinity;
  for (const v of channel.values) {
    low = Math.min(low, Number.isNaN(v) ? low : v);
    high = Math.max(high, Number.isNaN(v) ? high : v);
  }
  if (channel.hue || low > high) [low, high] = channel.hue ? [0, 360] : [0, 1];
  const step = channel.step;
  low = toStep(low, step, -1);
  high = Math.max(toStep(high, step, 1), low + step);
  const bins = Int16Array.from(channel.values, v => Number.isNaN(v) ? -1
    : Math.min(Math.floor((v - low) / (high - low) * kBins), kBins - 1));
  const all = countedInBins(bins, k => weights[k]);
  const classes = begun.classes.map((_, i) => countedInBins(bins, k => (classOf[k] === i + 1 ? weights[k] : 0)))
    .map(counts => counts.map(n => n / counts.reduce((a, b) => a + b, 0) || 0));
  return { ...channel, low, high, bins, all, classes };
}
function countedInBins(bins, count) {
  const sums = new Float64Array(kBins);
  for (let k = 0; k < bins.length; ++k) if (bins[k] >= 0) sums[bins[k]] += count(k);
  return sums;
}

// A hue has both ends.
function stateBegun() {
  const limits = structuredClone(begun.limits);
  for (const { name, hue } of channels)
    if (hue && limits[name]) limits[name] = limits[name].map((end, i) => end ?? [0, 360][i]);
  return { limits };
}
function setLimits(channel, limits) {
  if (!limits || (limits[0] === null && limits[1] === null)) delete state.limits[channel.name];
  else state.limits[channel.name] = limits;
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
      if (!state.limits[channel.name]) continue;
      const values = valuesToTakeIn(counts, channel);
      if (!values) return channel.name + " has no value there, so a limit of it leaves that out.";
      for (const value of values) {
        const limits = state.limits[channel.name];
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
    const cuts = channels.flatMap(channel => cutsOf(channel, state.limits[channel.name], isOut, taken, weights)
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

// The picture.
const seen = part("seen"), paper = seen.getContext("2d");
Object.assign(seen, size);
const image = paper.createImageData(size.width, size.height), pixels = new Uint32Array(image.data.buffer);
function opaque(r, g, b) {
  return (255 << 24 | b << 16 | g << 8 | r) >>> 0;
}
function colorOf(kind) {
  return opaque(rgb[3 * kind], rgb[3 * kind + 1], rgb[3 * kind + 2]);
}
function dimmed(kind) {
  const gray = 26 + (2 * rgb[3 * kind] + 5 * rgb[3 * kind + 1] + rgb[3 * kind + 2]) / 32;
  return opaque(gray, gray, gray);
}
// What is shown of a kind that is taken, and of one that is not.
const kPaint = [[colorOf, dimmed], [colorOf, () => 0], [() => opaque(255, 255, 255), () => opaque(0, 0, 0)], [colorOf, colorOf]];
function paintPicture() {
  const [isIn, isOut] = kPaint[shown], colors = new Uint32Array(begun.kinds);
  for (let k = 0; k < begun.kinds; ++k) colors[k] = taken[k] ? isIn(k) : isOut(k);
  for (let i = 0; i < pixels.length; ++i) pixels[i] = kindOf[i] === kNoKind ? 0 : colors[kindOf[i]];
  paper.putImageData(image, 0, 0);
}

// The histograms: all pixels behind those that are taken, which have their mean color in each bin. Heights are
// square roots, so that what is rare is seen beside what is not.
const panels = channels.map(channel => {
  const section = part("channel").content.firstElementChild.cloneNode(true);
  const [low, high] = section.querySelectorAll("input"), unit = document.createElement("small");
  section.querySelector("h2").append(channel.name, unit);
  unit.textContent = channel.unit;
  for (const [i, input] of [low, high].entries()) {
    input.setAttribute("aria-label", channel.name + (i === 0 ? " from" : " to"));
    input.addEventListener("change", () => typeEnd(channel, i, input));
  }
  const clear = section.querySelector("button"), canvas = section.querySelector("canvas");
  canvas.setAttribute("role", "img");
  canvas.setAttribute("aria-label", "histogram of " + channel.name);
  clear.addEventListener("click", () => change(() => setLimits(channel, null)));
  part("channels").append(section);
  return { channel, low, high, clear, canvas };
});
function typeEnd(channel, which, input) {
  const text = input.value.trim().replace(",", "."), value = text === "" ? null : Number(text);
  const isWrong = Number.isNaN(value) || (channel.hue && value !== null && (value < 0 || value > 360));
  const limits = (state.limits[channel.name] ?? [null, null]).slice();
  limits[which] = value;
  if (channel.hue && value !== null) limits[1 - which] ??= [0, 360][1 - which];
  if (channel.hue && value === null) limits[1 - which] = null;
  const crossed = !channel.hue && limits[0] !== null && limits[1] !== null && limits[0] > limits[1];
  input.setCustomValidity(isWrong ? "a number" + (channel.hue ? " from 0 to 360" : "") : crossed ? "the lower end first" : "");
  if (!input.reportValidity()) return;
  change(() => setLimits(channel, limits));
}
// The taken pixels in each bin, and the sums of their r, g and b.
function takenInBins(bins) {
  const sums = [0, 1, 2, 3].map(() => new Float64Array(kBins)), [counts, r, g, b] = sums;
  for (let k = 0; k < bins.length; ++k) {
    const bin = bins[k], n = weights[k];
    if (!taken[k] || bin < 0) continue;
    counts[bin] += n;
    r[bin] += n * rgb[3 * k];
    g[bin] += n * rgb[3 * k + 1];
    b[bin] += n * rgb[3 * k + 2];
  }
  return sums;
}
function paintHistogram({ channel, canvas }) {
  const scale = devicePixelRatio || 1, wide = canvas.clientWidth, high = canvas.clientHeight;
  Object.assign(canvas, { width: wide * scale, height: high * scale });
  const pen = canvas.getContext("2d"), style = getComputedStyle(document.body), color = name => style.getPropertyValue(name);
  pen.scale(scale, scale);
  const most = Math.sqrt(channel.all.reduce((a, b) => Math.max(a, b), 1)), bar = wide / kBins;
  const tall = n => Math.sqrt(n) / most * (high - 6);
  const [its, ...sums] = takenInBins(channel.bins);
  for (let i = 0; i < kBins; ++i) {
    pen.fillStyle = color("--rule");
    pen.fillRect(i * bar, high - tall(channel.all[i]), bar - 0.5, high);
    pen.fillStyle = "rgb(" + sums.map(sum => Math.round(sum[i] / its[i])).join(" ") + ")";
    if (its[i] > 0) pen.fillRect(i * bar, high - tall(its[i]), bar - 0.5, high);
  }
  paintClasses(pen, channel, wide, high, color("--sheet"));
  const limits = state.limits[channel.name];
  if (limits) paintEnds(pen, channel, limits, wide, high, color("--accent"));
  if (marked === null || Number.isNaN(channel.values[marked])) return;
  pen.fillStyle = color("--ink");
  pen.fillRect((channel.values[marked] - channel.low) / (channel.high - channel.low) * wide - 0.75, 0, 1.5, high);
}
// A line for each class: which part of it lies in each bin.
function paintClasses(pen, channel, wide, high, edge) {
  const most = channel.classes.reduce((a, shares) => shares.reduce((b, share) => Math.max(b, share), a), 0);
  channel.classes.forEach((shares, c) => {
    if (shares.every(share => share === 0)) return;
    pen.beginPath();
    shares.forEach((share, i) => pen.lineTo((i + 0.5) * wide / kBins, high - 1 - Math.sqrt(share / most) * (high - 8)));
    for (const [stroke, width] of [[edge, 3.5], [begun.classes[c].color, 1.75]]) {
      Object.assign(pen, { strokeStyle: stroke, lineWidth: width });
      pen.stroke();
    }
  });
}
function paintEnds(pen, channel, limits, wide, high, color) {
  const at = v => (v - channel.low) / (channel.high - channel.low) * wide;
  const from = limits[0] === null ? 0 : at(limits[0]), to = limits[1] === null ? wide : at(limits[1]);
  pen.fillStyle = color;
  pen.globalAlpha = 0.16;
  if (from <= to) pen.fillRect(from, 0, to - from, high);
  else for (const [begin, end] of [[0, to], [from, wide]]) pen.fillRect(begin, 0, end - begin, high);
  pen.globalAlpha = 1;
  for (const [i, end] of [from, to].entries())
    if (limits[i] !== null) {
      pen.fillRect(Math.min(Math.max(end - 1, 0), wide - 2), 0, 2, high);
      pen.fillRect(Math.min(Math.max(end - 4, 0), wide - 8), 0, 8, 8);
    }
}

// Dragging in a histogram: an end, all between them, or a new interval where there is none.
const kGrip = 9;  // screen pixels
function dragged({ channel, canvas }, event) {
  const frame = canvas.getBoundingClientRect(), perPixel = (channel.high - channel.low) / frame.width;
  const valueAt = ({ clientX }) => Math.min(Math.max(channel.low + (clientX - frame.left) * perPixel, channel.low), channel.high);
  const start = valueAt(event), limits = state.limits[channel.name], before = JSON.stringify(state);
  const ends = limits && limits.map((end, i) => end ?? [channel.low, channel.high][i]);
  const away = ends && ends.map(end => Math.abs(end - start) / perPixel);
  const nearest = ends && (away[0] <= away[1] ? 0 : 1);
  let move;
  if (!limits) move = v => [Math.min(start, v), Math.max(start, v)];
  else if (away[nearest] <= kGrip || !passes(limits, 0)(start))
    move = v => ends.map((end, i) => (i === nearest ? v : end));
  else move = v => ends.map(end => (channel.hue ? around(end + v - start) : Math.min(Math.max(end + v - start, channel.low), channel.high)));
  return { before, to: now => setLimits(channel, settled(move(valueAt(now)), channel)) };
}
// On steps, in order, and open at the ends of the axis.
function settled(ends, { hue, low, high, step }) {
  const [from, to] = ends.map(end => toStep(end, step, 0));
  if (hue) return [from, to];
  const ordered = [Math.min(from, to), Math.max(from, to)];
  return [ordered[0] <= low ? null : ordered[0], ordered[1] >= high ? null : ordered[1]];
}
for (const panel of panels) {
  panel.canvas.addEventListener("pointerdown", event => {
    if (event.button !== 0) return;
    event.preventDefault();
    panel.canvas.setPointerCapture(event.pointerId);
    panel.drag = dragged(panel, event);
  });
  panel.canvas.addEventListener("pointermove", event => {
    if (!panel.drag) return;
    panel.drag.to(event);
    draw();
  });
  panel.canvas.addEventListener("pointerup", () => {
    if (panel.drag) changedSince(panel.drag.before);
    panel.drag = null;
  });
  panel.canvas.addEventListener("dblclick", () => panel.clear.click());
}

// What is told.
function many(n, thing) {
  return n.toLocaleString("en") + " " + thing + (n === 1 ? "" : "s");
}
function percentText(share, whole) {
  return (whole ? 100 * share / whole : 0).toFixed(2) + " %";
}
function tell() {
  const inClass = new Float64Array(begun.classes.length + 1), ofClass = inClass.slice();
  for (let k = 0; k < begun.kinds; ++k) {
    ofClass[classOf[k]] += weights[k];
    if (taken[k]) inClass[classOf[k]] += weights[k];
  }
  const all = inClass.reduce((a, b) => a + b);
  part("state").textContent = percentText(all, counted) + " taken: " + all.toLocaleString("en") + " of " +
    many(counted, "pixel") + (begun.step > 1 ? " seen" : "");
  part("shares").replaceChildren(...begun.classes.map(({ name, color }, i) => {
    const item = document.createElement("li"), swatch = document.createElement("i");
    swatch.style.background = color;
    item.append(swatch, name + " " + percentText(inClass[i + 1], ofClass[i + 1]));
    item.title = many(inClass[i + 1], "pixel") + " of " + ofClass[i + 1].toLocaleString("en");
    return item;
  }));
  const text = selectionText(state.limits, channels);
  part("where").value = text || "No limit is set yet, so all is taken.";
  part("command").textContent = begun.command + ' --where "' + text + '" -o out/';
  part("command").parentElement.hidden = !text;
}
function fileText() {
  const lines = begun.options.map(({ name, values: its }) => name + ": " + JSON.stringify(its.length === 1 ? its[0] : its) + "\n");
  return "# chalcedony mask PICTURE... --config " + begun.file + " -o FOLDER\n" +
    "where: " + JSON.stringify(selectionText(state.limits, channels)) + "\n" + lines.join("");
}
function draw() {
  taken = takenBy(state.limits, channels, begun.kinds);
  paintPicture();
  for (const panel of panels) {
    const limits = state.limits[panel.channel.name] ?? [null, null];
    for (const [i, input] of [panel.low, panel.high].entries())
      if (input !== document.activeElement || input.value !== "") {
        input.value = limits[i] === null ? "" : numberText(limits[i]);
        input.placeholder = numberText([panel.channel.low, panel.channel.high][i]);
        input.setCustomValidity("");
      }
    panel.clear.disabled = !state.limits[panel.channel.name];
    paintHistogram(panel);
  }
  for (const button of document.querySelectorAll("[data-tool]"))
    button.setAttribute("aria-pressed", button.dataset.tool === tool);
  stage.dataset.tool = tool;
  part("hint").textContent = kHints[tool];
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
  const kind = kindOf[y * size.width + x];
  marked = kind === kNoKind ? null : kind;
  panels.forEach(paintHistogram);
  part("under").textContent = "x " + x * begun.step + ", y " + y * begun.step + (marked === null ? ": does not count"
    : ", " + channels.map(channel => channel.name + " " + (Number.isNaN(channel.values[kind]) ? "none"
      : numberText(toStep(channel.values[kind], channel.step, 0)))).join(", "));
}
seen.addEventListener("pointerdown", event => {
  if (event.button !== 0) return;
  event.preventDefault();
  stage.focus({ preventScroll: true });
  seen.setPointerCapture(event.pointerId);
  drag = { from: positionAt(event), scroll: [stage.scrollLeft + event.clientX, stage.scrollTop + event.clientY] };
});
seen.addEventListener("pointermove", event => {
  const at = positionAt(event);
  if (drag && tool === "move")
    [stage.scrollLeft, stage.scrollTop] = [drag.scroll[0] - event.clientX, drag.scroll[1] - event.clientY];
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
for (const button of document.querySelectorAll("[data-tool]"))
  button.addEventListener("click", () => setTool(button.dataset.tool));
const kPress = {
  undo: takeBack,
  anew: () => change(() => { state = stateBegun(); }),
  show: () => { shown = (shown + 1) % kShown.length; draw(); },
};
for (const [id, press] of Object.entries(kPress)) part(id).addEventListener("click", press);
listenToKeys({ l: () => setTool("like"), i: () => setTool("in"), o: () => setTool("out"), v: () => setTool("move"),
  m: kPress.show, ...kStageKeys }, takeBack);
part("where").addEventListener("focus", () => part("where").select());
part("save").addEventListener("click", () => {
  part("save").href = URL.createObjectURL(new Blob([fileText()], { type: "application/yaml" }));
});
addEventListener("resize", () => panels.forEach(paintHistogram));
const before = remembered(kept);
if (before?.limits) state = before;
draw();
showWhole();

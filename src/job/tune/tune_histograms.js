// The histograms of a page of tune, in which limits are shown, dragged and typed: all pixels behind
// those that are taken, which have their mean color in each bin. Heights are square roots, so that what
// is rare is seen beside what is not.

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
  const limits = (current().limits[channel.name] ?? [null, null]).slice();
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
  const limits = current().limits[channel.name];
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
  const start = valueAt(event), limits = current().limits[channel.name], before = JSON.stringify(state);
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
  for (const ended of ["pointerup", "pointercancel"])
    panel.canvas.addEventListener(ended, () => {
      if (panel.drag) changedSince(panel.drag.before);
      panel.drag = null;
    });
  panel.canvas.addEventListener("dblclick", () => panel.clear.click());
}

// Limits of channels, over the kinds of pixels there are, and what they take.
//
// Limits are { NAME: [low, high] }, both ends among what is taken. An end that is null is open; those
// of a hue are both set, and low may lie above high: then it runs through 360. A channel is { name,
// hue, near, values, step, least }: a value for each kind, NaN where it has none, `near` as far outside
// of a limit as a value may lie, the step in which limits are set, and how far they lie apart at least
// where they are found.

// Whether a value passes, as mask compares it: in 32-bit numbers.
function passes([low, high], near) {
  const f = Math.fround, off = f(near);
  if (low === null) return v => f(v - f(high)) <= off;
  if (high === null) return v => f(v - f(low)) >= -off;
  const from = f(f(low) - off), to = f(f(high) + off);
  return low > high ? v => v >= from || v <= to : v => v >= from && v <= to;
}
// 1 for each kind that is taken.
function takenBy(limits, channels, kinds) {
  const taken = new Uint8Array(kinds).fill(1);
  for (const channel of channels) {
    if (!limits[channel.name]) continue;
    const isIn = passes(limits[channel.name], channel.near), values = channel.values;
    for (let k = 0; k < kinds; ++k) if (!isIn(values[k])) taken[k] = 0;
  }
  return taken;
}

// Limits as a person would write them.
function numberText(value) {
  const text = String(Number(value.toPrecision(9)));
  return text.includes("e") ? value.toFixed(12).replace(/\.?0+$/, "") : text;
}
function selectionText(limits, channels) {
  return channels.filter(channel => limits[channel.name]).map(({ name }) => {
    const [low, high] = limits[name];
    if (low === null) return name + " <= " + numberText(high);
    if (high === null) return name + " >= " + numberText(low);
    return name + " in " + numberText(low) + ".." + numberText(high);
  }).join(" and ");
}
// To the step at or below (-1), next to (0), or at or above (1) a value.
function toStep(value, step, side) {
  const whole = [Math.floor, Math.round, Math.ceil][side + 1](value / step);
  return Math.round(whole * step * 1e9) / 1e9;
}
function around(degrees) {
  return (degrees % 360 + 360) % 360;
}
// The limits that hold the values of kinds but for the outermost hundredth on either side, as mask
// finds them by --like. `counts` says how many pixels of a kind, by its number, there are. Null when
// none has a value.
function limitsLike(counts, { values, hue, step, least }) {
  const samples = [...counts].map(([kind, n]) => [values[kind], n]).filter(([v]) => !Number.isNaN(v));
  if (samples.length === 0) return null;
  // Hues are turned so that their mean direction lies at 180.
  const turn = hue ? 180 - meanHue(samples) : 0;
  const sorted = samples.map(([v, n]) => [hue ? around(v + turn) : v, n]).sort((a, b) => a[0] - b[0]);
  const ends = [0.01, 0.99].map(share => quantile(sorted, share));
  const missing = Math.max(least - (ends[1] - ends[0]), 0);
  return [ends[0] - missing / 2, ends[1] + missing / 2]
    .map((end, i) => toStep(hue ? around(end - turn) : end, step, i === 0 ? -1 : 1));
}
function meanHue(samples) {
  const sum = part => samples.reduce((all, [v, n]) => all + n * part(v * Math.PI / 180), 0);
  return around(Math.atan2(sum(Math.sin), sum(Math.cos)) * 180 / Math.PI);
}
// The value that a share of the pixels does not exceed.
function quantile(sorted, share) {
  const at = share * (sorted.reduce((sum, [, n]) => sum + n, 0) - 1), below = Math.floor(at);
  const ranked = rank => {
    let before = 0;
    return (sorted.find(([, n]) => (before += n) > rank) ?? sorted[sorted.length - 1])[0];
  };
  return ranked(below) + (at - below) * (ranked(below + 1) - ranked(below));
}

// Limits that take a value in, by the end that is nearer to it.
function limitsWith(value, limits, channel) {
  if (passes(limits, channel.near)(value)) return limits;
  const [low, high] = limits, step = channel.step;
  if (!channel.hue) return low !== null && value < low ? [toStep(value, step, -1), high] : [low, toStep(value, step, 1)];
  const below = around(low - value), above = around(value - high);
  return below < above ? [around(toStep(value, step, -1)), high] : [low, around(toStep(value, step, 1))];
}

// The ways to leave kinds out by this channel alone, each with the pixels that are lost with them:
// { limits, lost }. `isOut` has 1 for the kinds, `weights` the pixels of each kind.
function cutsOf(channel, limits, isOut, taken, weights) {
  const { values, near, hue, step } = channel, circle = hue && !limits;
  const outs = [...values.keys()].filter(k => isOut[k] && taken[k]).map(k => values[k]);
  if (outs.some(Number.isNaN)) return [];
  // A hue is cut open where it begins to be taken; all of it, opposite to what goes.
  const origin = !hue ? 0 : limits ? limits[0] : around(outs[0] + 180);
  const place = v => (hue ? around(v - origin) : v);
  const places = outs.map(place);
  const least = places.reduce((a, b) => Math.min(a, b)), most = places.reduce((a, b) => Math.max(a, b));
  let lostBelow = 0, lostAbove = 0, lostBetween = 0, nextAbove = Infinity, nextBelow = -Infinity;
  for (let k = 0; k < values.length; ++k) {
    if (!taken[k] || isOut[k] || Number.isNaN(values[k])) continue;
    const at = place(values[k]);
    if (at > most) nextAbove = Math.min(nextAbove, at);
    else lostBelow += weights[k];
    if (at < least) nextBelow = Math.max(nextBelow, at);
    else lostAbove += weights[k];
    if (at >= least && at <= most) lostBetween += weights[k];
  }
  const back = at => (hue ? around(at + origin) : at);
  const low = endBetween(most, nextAbove, origin, step, near), high = endBetween(least, nextBelow, origin, step, near);
  if (circle)
    return low === null || high === null ? [] : [{ limits: [back(low), back(high)], lost: lostBetween }];
  const cuts = [];
  if (low !== null) cuts.push({ limits: [back(low), limits?.[1] ?? null], lost: lostBelow });
  if (high !== null) cuts.push({ limits: [limits?.[0] ?? null, back(high)], lost: lostAbove });
  return cuts;
}
// An end that leaves `edge` out and takes `next`: on a step where one lies between; null for none.
function endBetween(edge, next, origin, step, near) {
  if (!Number.isFinite(next) || Math.abs(next - edge) <= 3 * near) return null;
  const side = Math.sign(next - edge), onStep = toStep(edge + origin + side * 2.5 * near, step, side) - origin;
  return side * (next - onStep) >= 0 ? onStep : (edge + next) / 2;
}

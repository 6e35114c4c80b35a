// The picture of a page of tune: its pixels, their kinds, and how they are shown.
//
// Pixels that are alike in their channels, their color and their class are of one kind. `taken` says of
// each kind whether the limits take it.

const begun = JSON.parse(part("begun").textContent);
const size = { width: begun.width, height: begun.height };
const kBins = 120;  // of a histogram
const kShown = ["Rest dimmed", "Taken alone", "As a mask", "Picture", "Class map"];  // the last one of classes
const kNoKind = 0xffffff;

function bytesOf(id) {
  const text = atob(part(id).textContent), bytes = new Uint8Array(text.length);
  for (let i = 0; i < bytes.length; ++i) bytes[i] = text.charCodeAt(i);
  return bytes;
}
const values = new Float32Array(bytesOf("values").buffer), rgb = bytesOf("rgb"), classOf = bytesOf("class-of");
const kindOf = (bytes => Uint32Array.from({ length: bytes.length / 3 },
  (_, i) => bytes[3 * i] | bytes[3 * i + 1] << 8 | bytes[3 * i + 2] << 16))(bytesOf("kinds"));
const weights = new Uint32Array(begun.kinds);
for (const kind of kindOf) if (kind !== kNoKind) ++weights[kind];
const counted = weights.reduce((sum, n) => sum + n, 0);
const channels = begun.channels.map((channel, c) => withAxis({ ...channel, values: values.subarray(c * begun.kinds, (c + 1) * begun.kinds) }));

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
// Of black, gray and white the one that is least like any of these colors: what is in no class.
function grayApartFrom(others) {
  const away = gray => Math.min(...others.map(color => Math.hypot(...color.map((v, c) => v - gray[c]))));
  return [0, 128, 255].map(v => [v, v, v]).reduce((a, b) => (away(b) > away(a) ? b : a));
}
function paintPicture() {
  const colors = new Uint32Array(begun.kinds);
  if (kPaint[shown]) {
    const [isIn, isOut] = kPaint[shown];
    for (let k = 0; k < begun.kinds; ++k) colors[k] = taken[k] ? isIn(k) : isOut(k);
  } else {
    const ofClass = state.classes.map(one => colorOfClass(one) || "#808080")
      .map(color => [1, 3, 5].map(at => parseInt(color.slice(at, at + 2), 16)));
    const ofLabel = [grayApartFrom(ofClass), ...ofClass].map(color => opaque(...color));
    for (let k = 0; k < begun.kinds; ++k) colors[k] = ofLabel[labels[k]];
  }
  for (let i = 0; i < pixels.length; ++i) pixels[i] = kindOf[i] === kNoKind ? 0 : colors[kindOf[i]];
  paper.putImageData(image, 0, 0);
}

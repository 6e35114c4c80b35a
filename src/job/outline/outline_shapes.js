// Regions as a sample file has them, and the pixels that lie in them.
//
// A region is { name, guess, rings } or { name, guess, point, radius }, in pixels of the picture:
// rings are closed lists of [x, y] that count even-odd; a point without a radius is the pixel that
// holds it. A guess is a class with a question mark that nobody has confirmed.

function regionsOf(collection) {
  return collection.features.map(({ properties, geometry }) => {
    const guess = properties.class.endsWith("?");
    const name = guess ? properties.class.slice(0, -1) : properties.class;
    return geometry.type === "Point"
      ? { name, guess, point: geometry.coordinates, radius: properties.radius ?? 0 }
      : { name, guess, rings: geometry.coordinates };
  });
}
// What the class of a region is called in a file.
function calledIn(region) {
  return region.name + (region.guess ? "?" : "");
}
function samplesText(regions, classes, { width, height }) {
  const colors = new Map(classes.map(one => [one.name, one.color]));
  const features = regions.map(region => {
    const properties = { class: calledIn(region) };
    if (colors.get(region.name)) properties.color = colors.get(region.name);
    if (region.point && region.radius > 0) properties.radius = region.radius;
    const geometry = region.point
      ? { type: "Point", coordinates: region.point }
      : { type: "Polygon", coordinates: region.rings };
    return JSON.stringify({ type: "Feature", properties, geometry });
  });
  const frame = JSON.stringify({ type: "FeatureCollection", chalcedony: "samples", width, height });
  return frame.slice(0, -1) + ',"features":[\n' + features.join(",\n") + "\n]}\n";
}
function rectangleRing(left, top, right, bottom) {
  return [[left, top], [right, top], [right, bottom], [left, bottom], [left, top]];
}
// { left, top, right, bottom }
function boundsOf(region) {
  const { point, radius, rings } = region;
  if (point) {
    const around = radius || 0.5;
    return { left: point[0] - around, top: point[1] - around, right: point[0] + around, bottom: point[1] + around };
  }
  const xs = rings.flat().map(p => p[0]), ys = rings.flat().map(p => p[1]);
  const least = all => all.reduce((a, b) => Math.min(a, b)), most = all => all.reduce((a, b) => Math.max(a, b));
  return { left: least(xs), top: least(ys), right: most(xs), bottom: most(ys) };
}
function moved(region, dx, dy) {
  const to = ([x, y]) => [tenths(x + dx), tenths(y + dy)];
  return region.point ? { ...region, point: to(region.point) } : { ...region, rings: region.rings.map(ring => ring.map(to)) };
}
function cornersOf(ring) {
  const last = ring[ring.length - 1];
  return ring[0][0] === last[0] && ring[0][1] === last[1] ? ring.slice(0, -1) : ring;
}
// Where a region is taken to be reshaped: its corners; of a disc the right end.
function handlesOf({ point, radius, rings }) {
  if (point) return radius ? [[point[0] + radius, point[1]]] : [];
  return rings.flatMap(cornersOf);
}
// A region once one of its handles is elsewhere.
function reshaped(region, handle, [x, y]) {
  const { point, rings } = region;
  if (point) return { ...region, radius: Math.max(tenths(Math.hypot(x - point[0], y - point[1])), 0.1) };
  let before = 0;
  return { ...region, rings: rings.map(ring => {
    const corners = cornersOf(ring).slice(), which = handle - before;
    before += corners.length;
    if (!corners[which]) return ring;
    corners[which] = [tenths(x), tenths(y)];
    return [...corners, corners[0]];
  }) };
}
function tenths(value) {
  return Math.round(value * 10) / 10;
}
// X,Y (a pixel), X,Y,RADIUS or X,Y,W,H as a shape; null when it is none or reaches outside.
function shapeOfNumbers(text, { width, height }) {
  const n = text.split(",").map(field => (field.trim() === "" ? NaN : Number(field)));
  if (n.some(Number.isNaN) || n.length < 2 || n.length > 4 || n[0] < 0 || n[1] < 0) return null;
  if (n.length === 4)
    return n[2] > 0 && n[3] > 0 && n[0] + n[2] <= width && n[1] + n[3] <= height
      ? { rings: [rectangleRing(n[0], n[1], n[0] + n[2], n[1] + n[3])] }
      : null;
  return n[0] <= width && n[1] <= height && !(n[2] < 0) ? { point: [n[0], n[1]], radius: n[2] ?? 0 } : null;
}
// The first pixel of a row or column whose center is at or behind `at`.
function firstPixel(at, size) {
  return Math.min(Math.max(Math.ceil(at - 0.5), 0), size);
}
function crossingsOf(rings, y) {
  const found = [];
  for (const ring of rings)
    ring.forEach((a, i) => {
      const b = ring[(i + 1) % ring.length];
      if ((a[1] <= y) !== (b[1] <= y)) found.push(a[0] + (y - a[1]) * (b[0] - a[0]) / (b[1] - a[1]));
    });
  return found.sort((a, b) => a - b);
}
// Calls use(row, begin, end) for the pixels whose centers lie in a region.
function forEachRun(region, { width, height }, use) {
  const { point, radius, rings } = region;
  if (point && !radius) {
    const x = Math.min(Math.floor(point[0]), width - 1);
    use(Math.min(Math.floor(point[1]), height - 1), x, x + 1);
    return;
  }
  const { top, bottom } = boundsOf(region);
  for (let row = firstPixel(top, height); row < height && row + 0.5 <= bottom; ++row)
    for (const [begin, end] of point ? acrossDisc(region, row + 0.5, width) : acrossRings(rings, row + 0.5, width))
      if (begin < end) use(row, begin, end);
}
// The pixels of a row that lie in a disc, which holds its edge.
function acrossDisc({ point, radius }, y, width) {
  const room = radius ** 2 - (y - point[1]) ** 2;
  if (room < 0) return [];
  const half = Math.sqrt(room), last = Math.floor(point[0] + half - 0.5);
  return [[firstPixel(point[0] - half, width), Math.min(Math.max(last + 1, 0), width)]];
}
function acrossRings(rings, y, width) {
  const at = crossingsOf(rings, y).map(x => firstPixel(x, width)), runs = [];
  for (let i = 0; i + 1 < at.length; i += 2) runs.push([at[i], at[i + 1]]);
  return runs;
}
// How many pixels lie in any of the regions; those in several count once.
function pixelsIn(regions, size) {
  const rows = new Map();
  for (const region of regions)
    forEachRun(region, size, (row, begin, end) => {
      if (!rows.has(row)) rows.set(row, []);
      rows.get(row).push([begin, end]);
    });
  let pixels = 0;
  for (const runs of rows.values()) {
    let seen = 0;
    for (const [begin, end] of runs.sort((a, b) => a[0] - b[0])) {
      pixels += Math.max(end - Math.max(begin, seen), 0);
      seen = Math.max(seen, end);
    }
  }
  return pixels;
}
// Whether a position lies in a region, or on the pixel it is.
function holds(region, [x, y]) {
  if (region.point && !region.radius)
    return Math.floor(x) === Math.floor(region.point[0]) && Math.floor(y) === Math.floor(region.point[1]);
  if (region.point) return Math.hypot(x - region.point[0], y - region.point[1]) <= region.radius;
  return crossingsOf(region.rings, y).filter(c => c <= x).length % 2 === 1;
}

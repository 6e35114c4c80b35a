// The classes of a page of tune. Each takes what lies within its limits, and their map gives a pixel to
// the first that takes it. One that stands alone may have no name: then it is a selection.
//
// state is { classes: [{ name, color, limits }], now }, where `now` is the place of the class whose limits
// are set. A color that is empty is the mean of what the class takes.

const kMostClasses = 64;
const current = () => state.classes[state.now];
const isMap = () => current().name !== "";
let labels = null;  // of each kind, the number of the first class that takes it; 0 for none
let takenByText = new Map();  // of limits, by their text, what they take: { taken, mean }

function stateBegun() {
  const classes = structuredClone(begun.tuned);
  // A hue has both ends.
  for (const { limits } of classes)
    for (const { name, hue } of channels)
      if (hue && limits[name]) limits[name] = limits[name].map((end, i) => end ?? [0, 360][i]);
  return { classes, now: 0 };
}
// A class without limits takes all where it is shown alone, and nothing in the map.
function hasLimits({ limits }) {
  return Object.keys(limits).length > 0;
}
function foundOf({ limits }) {
  return takenByText.get(JSON.stringify(limits));
}
// Finds what the classes take, but for limits of which it is known.
function findTaken() {
  takenByText = new Map(state.classes.map(one => [JSON.stringify(one.limits), foundOf(one) ?? take(one.limits)]));
  taken = foundOf(current()).taken;
  labels = new Uint8Array(begun.kinds);
  for (let c = state.classes.length - 1; c >= 0; --c) {
    const its = foundOf(state.classes[c]).taken;
    if (hasLimits(state.classes[c]))
      for (let k = 0; k < begun.kinds; ++k) if (its[k]) labels[k] = c + 1;
  }
}
function take(limits) {
  const its = takenBy(limits, channels, begun.kinds);
  return { taken: its, mean: meanColor(its) };
}
// Empty where nothing is taken.
function meanColor(its) {
  const sums = [0, 0, 0];
  let all = 0;
  for (let k = 0; k < begun.kinds; ++k)
    if (its[k]) {
      all += weights[k];
      for (let c = 0; c < 3; ++c) sums[c] += weights[k] * rgb[3 * k + c];
    }
  return all === 0 ? "" : "#" + sums.map(sum => Math.round(sum / all).toString(16).padStart(2, "0")).join("");
}
// The pixels of each label, 0 first.
function pixelsOfLabels() {
  const counts = new Float64Array(state.classes.length + 1);
  for (let k = 0; k < begun.kinds; ++k) counts[labels[k]] += weights[k];
  return counts;
}
// How many pixels the current class would take, were there none before it.
function pixelsTakenBefore() {
  let count = 0;
  for (let k = 0; k < begun.kinds; ++k) if (taken[k] && labels[k] !== 0 && labels[k] <= state.now) count += weights[k];
  return count;
}
function colorOfClass(one) {
  return one.color || !hasLimits(one) ? one.color : foundOf(one).mean;
}

// What is done to them. The first name is that of the limits there are.
function chooseClass(place) {
  state.now = place;
  remember(kept, state);
  draw();
}
function addClass(name) {
  const same = state.classes.findIndex(one => one.name === name);
  if (same >= 0) return chooseClass(same);
  if (state.classes.length === kMostClasses) return;
  change(() => {
    if (!isMap()) current().name = name;
    else state.now = state.classes.push({ name, color: "", limits: {} }) - 1;
  });
}
// What a known class is called here: = ends a name.
function nameOfKnown(known) {
  return begun.classes[known].name.replaceAll("=", "-");
}
// A class of the name and color of a known one, whose limits are around its values.
function takeLikeKnown(known) {
  const name = nameOfKnown(known), { color } = begun.classes[known], counts = new Map();
  for (let k = 0; k < begun.kinds; ++k) if (classOf[k] === known + 1) counts.set(k, weights[k]);
  const same = state.classes.findIndex(one => one.name === name);
  if (same < 0 && isMap() && state.classes.length === kMostClasses) return;
  change(() => {
    if (same >= 0) state.now = same;
    else if (isMap()) state.now = state.classes.push({ limits: {} }) - 1;
    Object.assign(current(), { name, color });
    for (const channel of channels) setLimits(channel, limitsLike(counts, channel));
  });
}
function renameClass(name) {
  if (state.classes.some(one => one.name === name)) part("hint").textContent = "There is a class " + name + " already.";
  else change(() => { current().name = name; });
}
function removeClass() {
  change(() => {
    state.classes.splice(state.now, 1);
    if (state.classes.length === 0) state.classes.push({ name: "", color: "", limits: {} });
    state.now = Math.min(state.now, state.classes.length - 1);
  });
}
// Before the class that takes things first now.
function moveClassUp() {
  if (state.now === 0) return;
  change(() => {
    const [one] = state.classes.splice(state.now, 1);
    state.classes.splice(--state.now, 0, one);
  });
}

// The list of them, and the fields that name and color them.
function tellClasses(counts) {
  part("classes").hidden = !isMap();
  listClasses(state.classes.map((one, place) => ({ ...one, place, color: colorOfClass(one) })),
    ({ place }) => place === state.now, ({ place }) => chooseClass(place),
    one => (hasLimits(one) ? " " + percentText(counts[one.place + 1], counted) : ""));
  part("name").placeholder = isMap() ? "name" : "name it, for a class map";
  for (const id of ["rename", "remove", "up", "color"]) part(id).hidden = !isMap();
  part("up").disabled = state.now === 0;
  part("color").value = colorOfClass(current()) || "#808080";
}
part("another").addEventListener("submit", event => {
  event.preventDefault();
  const name = part("name").value.trim();
  part("name").setCustomValidity(name.includes("=") ? "a name without =" : "");
  if (!part("name").reportValidity() || !name) return;
  if (event.submitter?.id === "rename") renameClass(name);
  else addClass(name);
  part("name").value = "";
});
part("name").addEventListener("input", () => part("name").setCustomValidity(""));
part("color").addEventListener("change", () => change(() => { current().color = part("color").value; }));

// What is saved, and typed in its stead.
function selectionTexts() {
  return state.classes.filter(hasLimits).map(one => (isMap() ? one.name + "=" : "") + selectionText(one.limits, channels));
}
// For a shell.
function quoted(text) {
  return '"' + text.replace(/[\\"$`]/g, "\\$&") + '"';
}
function commandText() {
  return begun[isMap() ? "slice" : "mask"] + selectionTexts().map(text => " --where " + quoted(text)).join("") + " -o out/";
}
function fileName() {
  return begun.stem + (isMap() ? ".slices.yaml" : ".mask.yaml");
}
// Of several values a list. JSON is YAML too.
function optionLine(name, itsValues) {
  return name + ": " + JSON.stringify(itsValues.length === 1 ? itsValues[0] : itsValues) + "\n";
}
function fileText() {
  const colors = state.classes.filter(hasLimits).map(one => [one.name, colorOfClass(one)]).filter(([, color]) => color);
  return "# chalcedony " + (isMap() ? "slice" : "mask") + " PICTURE... --config " + fileName() + " -o FOLDER\n" +
    optionLine("where", selectionTexts()) +
    (isMap() && colors.length > 0 ? optionLine("color", colors.map(pair => pair.join("="))) : "") +
    begun.options.map(({ name, values: its }) => optionLine(name, its)).join("");
}

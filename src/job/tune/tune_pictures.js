// The pictures of a page of tune: where each stands in what is seen, and how much of it is taken.

const frames = begun.frames.map(frame => ({ ...frame, counted: pixelsIn(frame, new Uint8Array(begun.kinds).fill(1)) }));
const areSeveral = frames.length > 1;

// How many pixels of a frame are of kinds for which `is` has 1.
function pixelsIn({ left, top, width, height }, is) {
  let count = 0;
  for (let y = top; y < top + height; ++y)
    for (let at = y * size.width + left, end = at + width; at < end; ++at)
      if (kindOf[at] !== kNoKind) count += is[kindOf[at]];
  return count;
}
// Undefined between the pictures.
function frameAt(x, y) {
  return frames.find(({ left, top, width, height }) => x >= left && x < left + width && y >= top && y < top + height);
}
// A place in what is seen as one of the picture there.
function placeText({ name, left, top, step }, x, y) {
  return (areSeveral ? name + " " : "") + "x " + (x - left) * step + ", y " + (y - top) * step;
}
function showPicture({ left, top, width, height }) {
  const kBars = 20;  // scroll bars and borders
  setZoom(Math.min((stage.offsetWidth - kBars) / width, (stage.offsetHeight - kBars) / height));
  stage.scrollLeft = (left + width / 2) * zoom - stage.clientWidth / 2;
  stage.scrollTop = (top + height / 2) * zoom - stage.clientHeight / 2;
}
// What the limits take of each, and of the known class of that name; of classes what is left to the
// current one.
function tellPictures() {
  if (!areSeveral) return;
  part("in-each").textContent = (isMap() ? "Its part of each map" : "Taken in each picture") + "; press one to see it near:";
  const is = isMap() ? labels.map(label => (label === state.now + 1 ? 1 : 0)) : taken;
  const known = begun.classes.findIndex((_, i) => nameOfKnown(i) === current().name);
  const isKnown = known < 0 ? null : classOf.map(its => (its === known + 1 ? 1 : 0)), isBoth = isKnown?.map((one, k) => one & is[k]);
  part("pictures").replaceChildren(...frames.map(frame => {
    const count = pixelsIn(frame, is), ofKnown = isKnown ? pixelsIn(frame, isKnown) : 0;
    const button = document.createElement("button");
    button.type = "button";
    button.textContent = frame.name + " " + percentText(count, frame.counted) +
      (ofKnown === 0 ? "" : ", " + percentText(pixelsIn(frame, isBoth), ofKnown) + " of known " + current().name);
    button.title = count.toLocaleString("en") + " of " + many(frame.counted, "pixel");
    button.addEventListener("click", () => showPicture(frame));
    return button;
  }));
}
part("in-each").hidden = part("pictures").hidden = !areSeveral;
if (areSeveral) {
  part("whole").firstChild.data = "All pictures";
  for (const { name, left, top, width } of frames) {
    const caption = document.createElement("span"), percent = (part, whole) => 100 * part / whole + "%";
    caption.className = "caption";
    caption.textContent = name;
    Object.assign(caption.style, { left: percent(left, size.width), top: percent(top, size.height), maxWidth: percent(width, size.width) });
    sheet.append(caption);
  }
}

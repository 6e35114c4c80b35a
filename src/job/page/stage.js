// A picture on the screen, brought nearer and farther. A page that has it has `size`, of the picture.
const stage = part("stage"), sheet = part("sheet");
const kMostZoom = 48;  // screen pixels for each of the picture
const kLeastDrag = 4;  // screen pixels
let zoom = 1, showsWhole = true;

function zoomTo(wanted, keep = middleOfStage()) {
  const place = positionAt(keep), frame = stage.getBoundingClientRect();
  setZoom(Math.max(wanted, Math.min(wholeZoom(), 1)));
  stage.scrollLeft = place[0] * zoom - (keep.clientX - frame.left);
  stage.scrollTop = place[1] * zoom - (keep.clientY - frame.top);
}
function showWhole() {
  setZoom(wholeZoom());
  showsWhole = true;
}
// Lines stay as wide as they are, so nothing is drawn anew.
function setZoom(wanted) {
  zoom = Math.min(wanted, kMostZoom);
  showsWhole = false;
  Object.assign(sheet.style, { width: size.width * zoom + "px", height: size.height * zoom + "px" });
}
function wholeZoom() {
  const kBorders = 2;  // its room without scroll bars, which the whole picture does not need
  return Math.min((stage.offsetWidth - kBorders) / size.width, (stage.offsetHeight - kBorders) / size.height);
}
function middleOfStage() {
  const frame = stage.getBoundingClientRect();
  return { clientX: frame.left + frame.width / 2, clientY: frame.top + frame.height / 2 };
}
// Where in the picture a pointer is, within it.
function positionAt({ clientX, clientY }) {
  const frame = sheet.getBoundingClientRect();
  return [Math.min(Math.max((clientX - frame.left) / zoom, 0), size.width),
    Math.min(Math.max((clientY - frame.top) / zoom, 0), size.height)];
}
// What moves the picture along with a pointer that takes hold of it.
function heldBy({ clientX, clientY }) {
  const from = [stage.scrollLeft + clientX, stage.scrollTop + clientY];
  return now => { [stage.scrollLeft, stage.scrollTop] = [from[0] - now.clientX, from[1] - now.clientY]; };
}
// The tools are buttons, of which one is pressed.
function listenToTools(setTool) {
  for (const button of document.querySelectorAll("[data-tool]"))
    button.addEventListener("click", () => setTool(button.dataset.tool));
}
function showTool(tool, hint) {
  for (const button of document.querySelectorAll("[data-tool]"))
    button.setAttribute("aria-pressed", button.dataset.tool === tool);
  stage.dataset.tool = tool;
  part("hint").textContent = hint;
}
// Whether a pointer moved, so that it drags.
function isFar(a, b) {
  return Math.hypot(a[0] - b[0], a[1] - b[1]) * zoom >= kLeastDrag;
}
stage.addEventListener("wheel", event => {
  event.preventDefault();
  zoomTo(zoom * Math.pow(1.0015, -event.deltaY), event);
}, { passive: false });
const kNearer = 1.5;
const kStageKeys = { "+": () => zoomTo(zoom * kNearer), "-": () => zoomTo(zoom / kNearer), w: showWhole };
listenToButtons({ nearer: kStageKeys["+"], farther: kStageKeys["-"], whole: showWhole });
addEventListener("resize", () => { if (showsWhole) showWhole(); });
// Keys are for the picture again once a button was pressed with a pointer.
addEventListener("click", event => {
  if (event.detail > 0 && event.target.closest?.("button")) stage.focus({ preventScroll: true });
});

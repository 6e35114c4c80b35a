// What the reader of a page has made of it: `state`, which the browser remembers as `kept`, and what
// can be taken back. A page that has it draws itself by draw().
let past = [];

// A number for a text, so that pages of different content remember apart.
function fingerprint(text) {
  let sum = 2166136261;
  for (let i = 0; i < text.length; ++i) sum = Math.imul(sum ^ text.charCodeAt(i), 16777619);
  return sum >>> 0;
}
// Does something to the state that can be taken back.
function change(work) {
  const before = JSON.stringify(state);
  work();
  changedSince(before);
}
// The same once it is done: `before` is the state as it was, as JSON.
function changedSince(before) {
  if (before !== JSON.stringify(state)) {
    past.push(before);
    remember(kept, state);
  }
  draw();
}
// Takes the last change back.
function takeBack() {
  if (past.length === 0) return;
  state = JSON.parse(past.pop());
  remember(kept, state);
  draw();
}

// Tables that sort by a column and show only rows that hold a text.
"use strict";
function fieldOf(row, column) {
  return row.cells[column].textContent.trim();
}
function comesBefore(a, b) {
  if (a === "" || b === "") return (a === "") - (b === "");
  const x = Number(a.replaceAll(",", "")), y = Number(b.replaceAll(",", ""));
  return Number.isNaN(x) || Number.isNaN(y) ? a.localeCompare(b, "en", { numeric: true }) : x - y;
}
function sortBy(heading) {
  const table = heading.closest("table"), body = table.tBodies[0];
  const falling = heading.getAttribute("aria-sort") === "ascending";
  for (const other of table.tHead.rows[0].cells) other.removeAttribute("aria-sort");
  heading.setAttribute("aria-sort", falling ? "descending" : "ascending");
  const column = heading.cellIndex;
  const rows = [...body.rows].sort((a, b) => comesBefore(fieldOf(a, column), fieldOf(b, column)));
  body.append(...(falling ? rows.reverse() : rows));
}
function showRowsWith(input) {
  const wanted = input.value.toLowerCase(), table = document.getElementById(input.dataset.table);
  let shown = 0;
  for (const row of table.tBodies[0].rows) {
    row.hidden = !row.textContent.toLowerCase().includes(wanted);
    shown += row.hidden ? 0 : 1;
  }
  document.getElementById(input.dataset.table + "-shown").textContent =
    shown + " of " + table.tBodies[0].rows.length + " rows";
}
for (const button of document.querySelectorAll("th button"))
  button.addEventListener("click", () => sortBy(button.closest("th")));
for (const input of document.querySelectorAll("input[data-table]"))
  input.addEventListener("input", () => showRowsWith(input));

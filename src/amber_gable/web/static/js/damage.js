// The condition map: squares are painted on the wall with the chosen damage, or rubbed out; the server works out the m².
import { boardOf, metres, shape } from "./board.js";

let damage = null, erase = false, painting = null, cells = null;
const map = () => document.querySelector("#condition .map");

function read() {
  const marks = JSON.parse(map().dataset.marks);
  cells = {};
  for (const [name, runs] of Object.entries(marks)) {
    cells[name] = new Set(runs.flatMap(([row, first, last]) => Array.from({ length: last - first + 1 }, (_, i) => `${row},${first + i}`)));
  }
}

function runs(set) {
  const sorted = [...set].map((key) => key.split(",").map(Number)).sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const out = [];
  for (const [row, column] of sorted) {
    const last = out.at(-1);
    if (last && last[0] === row && last[2] === column - 1) last[2] = column;
    else out.push([row, column, column]);
  }
  return out;
}

function press() {
  for (const button of map().querySelectorAll("[data-damage]")) button.setAttribute("aria-pressed", String(button.dataset.damage === damage));
  map().querySelector("[data-erase]").setAttribute("aria-pressed", String(erase));
  map().querySelector("svg.elevation").classList.toggle("drawing-on", damage !== null);
}

document.addEventListener("click", (event) => {
  const button = event.target.closest?.("#condition [data-damage], #condition [data-erase]");
  if (button) {
    event.preventDefault();
    if ("erase" in button.dataset) erase = !erase;
    else damage = damage === button.dataset.damage ? null : button.dataset.damage;
    press();
  } else if (damage && event.target.closest?.("#condition svg")) event.preventDefault();
});

document.addEventListener("keydown", (event) => {
  const button = event.target.closest?.("#condition [data-damage]");
  if (button && event.key === " ") { event.preventDefault(); button.click(); }
});

function dab(event) {
  const { board, set } = painting, at = metres(board, event), side = +map().dataset.cell;
  if (at.x < 0 || at.y < 0 || at.x > board.width || at.y > board.top) return;
  // A brush of two by two squares, as a hand sweeps it.
  for (const [dx, dy] of [[0, 0], [-0.5, 0], [0, -0.5], [-0.5, -0.5]]) {
    const column = Math.floor(at.x / side + dx), row = Math.floor(at.y / side + dy);
    if (column < 0 || row < 0) continue;
    const key = `${row},${column}`;
    if (erase) set.delete(key);
    else if (!set.has(key)) {
      set.add(key);
      const guides = board.svg.querySelector(".guides");
      const size = side * board.scale;
      const place = { x: board.left + column * size, y: board.ground - (row + 1) * size, width: size, height: size };
      guides.append(shape("rect", { class: `mark-${damage}`, ...place }));
    }
  }
}

document.addEventListener("pointerdown", (event) => {
  const svg = event.target.closest?.("#condition svg.elevation");
  if (!svg || !damage || event.button > 0) return;
  event.preventDefault();
  if (!cells) read();
  painting = { board: boardOf(svg), set: (cells[damage] ??= new Set()), pointer: event.pointerId };
  try { svg.setPointerCapture(event.pointerId); } catch { /* the pointer is gone again */ }
  dab(event);
});
document.addEventListener("touchstart", (event) => {
  if (damage && event.target.closest?.("#condition svg.elevation")) event.preventDefault();
}, { passive: false });
document.addEventListener("pointermove", (event) => { if (painting?.pointer === event.pointerId) dab(event); });
document.addEventListener("pointerup", (event) => {
  if (painting?.pointer !== event.pointerId) return;
  const { set } = painting;
  painting = null;
  const values = { damage, runs: JSON.stringify(runs(set)) };
  const here = document.getElementById("condition").dataset.here;
  window.htmx.ajax("POST", `${here}/marks`, { target: "#condition", swap: "outerHTML", values });
});
document.addEventListener("dragstart", (event) => { if (event.target.closest?.("#condition")) event.preventDefault(); });
document.addEventListener("htmx:after:swap", () => { if (map()) { read(); press(); } });

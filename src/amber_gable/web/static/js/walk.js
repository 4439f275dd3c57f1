// Corners of a footprint tapped on a grid, kept to right angles; what is tapped is written into the field as a walk.
const pad = document.querySelector(".walk-pad"), svg = pad?.querySelector("svg"), field = document.querySelector("[name=walk]");
const grid = +pad.dataset.grid, us = Boolean(pad.dataset.us), FOOT = 0.3048;
const said = pad.querySelector("[role=status]");
const [, , WIDE, TALL] = svg.getAttribute("viewBox").split(" ").map(Number);
let corners = [];

const length = (m) => (us ? `${Math.round(m / FOOT)}'` : `${+m.toFixed(2)}`);
const down = ([ax, ay], [bx, by]) => (Math.abs(bx - ax) < 1e-6 ? Math.sign(by - ay) : 0);

function drawGrid() {
  let d = "";
  for (let x = 0; x <= WIDE + 1e-6; x += grid * 2) d += `M${x} 0V${TALL}`;
  for (let y = 0; y <= TALL + 1e-6; y += grid * 2) d += `M0 ${y}H${WIDE}`;
  pad.querySelector(".pad-grid").setAttribute("d", d);
}

// From the last corner along the street or across it, whichever is meant; never on in the same line.
function next(x, y) {
  const [last, before] = [corners.at(-1), corners.at(-2)];
  if (!last) return [x, y];
  const across = corners.length === 1 ? false : down(before, last) === 0;
  return across ? [last[0], y] : [x, last[1]];
}

function words() {
  const steps = corners.slice(1).map((c, n) => [c[0] - corners[n][0], c[1] - corners[n][1]]);
  return steps.map(([dx, dy], n) => {
    const [px, py] = steps[n - 1] ?? [0, 0];
    // Down the screen is towards the street, so that a turn to the left goes up.
    const turn = n === 0 ? "" : px * dy - py * dx < 0 ? "left " : "right ";
    return turn + length(Math.abs(dx) + Math.abs(dy));
  }).join(" ");
}

function show() {
  const d = corners.map(([x, y], n) => `${n ? "L" : "M"}${x} ${y}`).join("");
  pad.querySelector(".pad-walk").setAttribute("d", corners.length === 1 ? `${d}h.01` : d);
  field.value = words();
  field.dispatchEvent(new Event("input", { bubbles: true }));
  said.textContent = corners.length < 2 ? "" : `${corners.length - 1} walls`;
}

svg.addEventListener("pointerdown", (event) => {
  const box = svg.getBoundingClientRect();
  const at = [(event.clientX - box.left) / box.width * WIDE, (event.clientY - box.top) / box.height * TALL];
  const [x, y] = next(...at.map((v) => Math.round(v / grid) * grid));
  const last = corners.at(-1);
  if (last && Math.hypot(x - last[0], y - last[1]) < grid / 2) {
    said.textContent = "That is the corner you stand at.";
    return;
  }
  if (corners.length === 1 && x < last[0]) {
    said.textContent = "Along the street side to the right first.";
    return;
  }
  corners.push([x, y]);
  show();
});
pad.querySelector("[data-back]").addEventListener("click", () => {
  corners.pop();
  show();
});
drawGrid();
pad.hidden = false;

// The house plan: a wall is dragged to where it stands.
let drag = null, dragEnded = -1;

const box = () => document.getElementById("plan");

document.addEventListener("pointerdown", (event) => {
  const wall = event.target.closest?.("#plan a.wall");
  if (!wall || event.button > 0) return;
  const svg = wall.ownerSVGElement;
  drag = { wall, svg, from: at(svg, event), pointer: event.pointerId, by: [0, 0] };
  try { svg.setPointerCapture(event.pointerId); } catch { /* the pointer is gone again */ }
});

function at(svg, event) {
  return new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
}

document.addEventListener("pointermove", (event) => {
  if (!drag || event.pointerId !== drag.pointer) return;
  const now = at(drag.svg, event);
  drag.by = [now.x - drag.from.x, now.y - drag.from.y];
  drag.wall.setAttribute("transform", `translate(${drag.by[0]} ${drag.by[1]})`);
});

document.addEventListener("pointerup", (event) => {
  if (!drag || event.pointerId !== drag.pointer) return;
  const { wall, svg, by } = drag;
  drag = null;
  if (Math.hypot(...by) < 4) {
    wall.removeAttribute("transform");
    if (event.pointerType === "touch") wall.dispatchEvent(new MouseEvent("click", { bubbles: true, cancelable: true }));
    return;
  }
  dragEnded = performance.now();
  stand(wall, by, +svg.dataset.scale);
});
// By keyboard: the arrows move the wall that has the focus, with Shift ten times as far.
const MOVES = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
let nudged = null;
document.addEventListener("keydown", (event) => {
  const wall = event.target.closest?.("#plan a.wall"), way = MOVES[event.key];
  if (!wall || !way) return;
  event.preventDefault();
  const scale = +wall.ownerSVGElement.dataset.scale, step = 0.05 * scale * (event.shiftKey ? 10 : 1);
  nudged ??= { wall, by: [0, 0] };
  nudged.by = [nudged.by[0] + way[0] * step, nudged.by[1] + way[1] * step];
  wall.setAttribute("transform", `translate(${nudged.by[0]} ${nudged.by[1]})`);
  window.clearTimeout(nudged.timer);
  nudged.timer = window.setTimeout(async () => {
    const n = nudged;
    nudged = null;
    await stand(n.wall, n.by, scale);
    document.querySelector(`#plan a.wall[data-id="${n.wall.dataset.id}"]`)?.focus();
  }, 350);
});

function stand(wall, by, scale) {
  const grid = (v) => Math.round(v * 20) / 20;
  const values = { east_m: grid(+wall.dataset.east + by[0] / scale), north_m: grid(+wall.dataset.north - by[1] / scale) };
  return window.htmx.ajax("POST", `${box().dataset.base}/face/${wall.dataset.id}/stand`, { target: "#plan", swap: "outerHTML", values });
}
document.addEventListener("click", (event) => { if (performance.now() - dragEnded < 60) event.preventDefault(); }, { capture: true });
document.addEventListener("touchstart", (event) => { if (event.target.closest?.("#plan a.wall")) event.preventDefault(); }, { passive: false });
document.addEventListener("dragstart", (event) => { if (event.target.closest?.("#plan")) event.preventDefault(); });

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
  const scale = +svg.dataset.scale, grid = (v) => Math.round(v * 20) / 20;
  const values = { east_m: grid(+wall.dataset.east + by[0] / scale), north_m: grid(+wall.dataset.north - by[1] / scale) };
  dragEnded = performance.now();
  window.htmx.ajax("POST", `${box().dataset.base}/face/${wall.dataset.id}/stand`, { target: "#plan", swap: "outerHTML", values });
});
document.addEventListener("click", (event) => { if (performance.now() - dragEnded < 60) event.preventDefault(); }, { capture: true });
document.addEventListener("touchstart", (event) => { if (event.target.closest?.("#plan a.wall")) event.preventDefault(); }, { passive: false });
document.addEventListener("dragstart", (event) => { if (event.target.closest?.("#plan")) event.preventDefault(); });

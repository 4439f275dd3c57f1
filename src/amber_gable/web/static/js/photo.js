// Measuring on a photo: marks are dragged or moved with the arrow keys; letting go measures again when a length is known.
let drag = null;
const form = () => document.getElementById("measure");
const field = (key) => form().querySelector(`input[name="${key}"]`);
const point = (key) => (field(key).value.split(",").map(Number));

function draw() {
  const svg = form()?.querySelector("svg");
  if (!svg) return;
  const unit = svg.viewBox.baseVal.width / Math.max(svg.getBoundingClientRect().width, 1);
  for (const mark of svg.querySelectorAll("[data-mark]")) {
    const [x, y] = point(mark.dataset.mark), second = /2$/.test(mark.dataset.mark) && mark.matches(".known");
    mark.setAttribute("transform", `translate(${x} ${y}) scale(${unit})`);
    mark.setAttribute("visibility", second && !field("length2").value.trim() ? "hidden" : "visible");
  }
  const at = (key) => point(key).join(" ");
  svg.querySelector(".photo-wall").setAttribute("points", ["c1", "c2", "c3", "c4"].map(at).join(" "));
  svg.querySelector(".photo-known").setAttribute("d", `M${at("a")}L${at("b")}`);
  svg.querySelector(".photo-known.second").setAttribute("d", field("length2").value.trim() ? `M${at("a2")}L${at("b2")}` : "");
  svg.querySelector(".photo-line").setAttribute("d", `M${at("m1")}L${at("m2")}`);
}

function move(key, x, y) {
  const box = form().querySelector("svg").viewBox.baseVal;
  field(key).value = `${Math.min(Math.max(x, 0), box.width).toFixed(1)}, ${Math.min(Math.max(y, 0), box.height).toFixed(1)}`;
  draw();
}

const send = () => { if (field("length").value.trim()) form().requestSubmit(form().querySelector(".acts button")); };

document.addEventListener("pointerdown", (event) => {
  const mark = event.target.closest?.("[data-mark]");
  if (!mark) return;
  event.preventDefault();
  mark.focus({ preventScroll: true });
  const svg = mark.ownerSVGElement, at = where(svg, event), [x, y] = point(mark.dataset.mark);
  drag = { svg, key: mark.dataset.mark, pointer: event.pointerId, off: [x - at.x, y - at.y] };
  try { svg.setPointerCapture(event.pointerId); } catch { /* the pointer is gone again */ }
});
document.addEventListener("touchstart", (event) => { if (event.target.closest?.("[data-mark]")) event.preventDefault(); }, { passive: false });
function where(svg, event) {
  return new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
}
document.addEventListener("pointermove", (event) => {
  if (drag?.pointer !== event.pointerId) return;
  const at = where(drag.svg, event);
  move(drag.key, at.x + drag.off[0], at.y + drag.off[1]);
});
document.addEventListener("pointerup", (event) => {
  if (drag?.pointer !== event.pointerId) return;
  drag = null;
  send();
});
const MOVES = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
document.addEventListener("keydown", (event) => {
  const mark = event.target.closest?.("[data-mark]"), way = MOVES[event.key];
  if (!mark) return;
  if (event.key === "Enter") return send();
  if (!way) return;
  event.preventDefault();
  const [x, y] = point(mark.dataset.mark), step = event.shiftKey ? 10 : 1;
  move(mark.dataset.mark, x + way[0] * step, y + way[1] * step);
});
// Where the hand was, it is again when the form comes back; on a touch screen the keys stay away from what was measured.
let focused = null;
function place(held) {
  if (held?.dataset?.mark) return `[data-mark="${held.dataset.mark}"]`;
  if (held?.matches?.(".acts button")) return ".acts button";
  return held?.matches?.("input[name]") && window.matchMedia("(pointer: fine)").matches ? `input[name="${held.name}"]` : null;
}
document.addEventListener("submit", (event) => { if (event.target.id === "measure") focused = place(document.activeElement); });
document.addEventListener("input", (event) => { if (event.target.closest?.("#measure")) draw(); });
document.addEventListener("htmx:after:swap", () => {
  draw();
  if (focused) form()?.querySelector(focused)?.focus({ preventScroll: true });
  focused = null;
});
window.addEventListener("resize", draw);
draw();

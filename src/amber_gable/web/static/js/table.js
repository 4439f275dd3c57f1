// The drawing table: parts are drawn, dragged, resized and nudged; the server keeps them and draws again.
import { boardOf, metres, px, shape, zoom } from "./board.js";
import { snapCorner, snapMove } from "./snap.js";

const REACH_PX = 8, STILL_PX = 4, NUDGE_WAIT = 350;
let armed = null, drag = null, wanted = null, nudged = null, dragEnded = -1;

const table = () => document.getElementById("table");
const drawing = () => table()?.querySelector("#picture svg.elevation");
const say = (words) => { const hint = document.getElementById("tool-hint"); if (hint) hint.textContent = words; };
const boxOf = (part) => ({ x: +part.dataset.x, y: +part.dataset.y, w: +part.dataset.w, h: +part.dataset.h });

function others(except) {
  const same = except && boxOf(except);
  // What shares the box goes along, and is nothing to snap to.
  return [...drawing().querySelectorAll("a.part")]
    .filter((p) => p !== except && !p.matches(":has(.obstacle)")).map(boxOf)
    .filter((b) => !same || Math.abs(b.x - same.x) + Math.abs(b.y - same.y) + Math.abs(b.w - same.w) + Math.abs(b.h - same.h) > 1e-6);
}

// One after the other, however quick the hand; what a step needs to know of the table is read when its turn comes.
let queue = Promise.resolve();
function post(path, values, method = "POST") {
  const run = () => window.htmx.ajax(method, path, { target: "#table", swap: "outerHTML", values: typeof values === "function" ? values() : values });
  return (queue = queue.then(run, run));
}
const versionOf = (part) => {
  const { kind = "zone", id } = part.dataset;
  return (table().querySelector(`#picture a[data-kind="${kind}"][data-id="${id}"], #picture a.zone-link[data-id="${id}"]`) ?? part).dataset.version;
};

const url = (part, act) => `${table().dataset.base}/${part.dataset.kind}/${part.dataset.id}${act ? `/${act}` : ""}`;
const round = (v) => Math.round(v * 1e5) / 1e5;

function send(part, box) {
  wanted = `${part.dataset.kind}/${part.dataset.id}`;
  const values = { x_m: round(Math.max(box.x, 0)), y_m: round(Math.max(box.y, 0)) };
  if (part.dataset.sizable === "yes") Object.assign(values, { width_m: round(box.w), height_m: round(box.h) });
  return post(url(part, "place"), () => ({ version: versionOf(part), ...values }));
}

function guides(board, found) {
  const group = board.svg.querySelector(".guides");
  group.replaceChildren();
  if (found?.guideX !== undefined) {
    const x = px(board, found.guideX, 0).x;
    group.append(shape("path", { d: `M${x} ${px(board, 0, board.top).y - 6}V${board.ground + 6}` }));
  }
  if (found?.guideY !== undefined) {
    const y = px(board, 0, found.guideY).y;
    group.append(shape("path", { d: `M${board.left - 6} ${y}H${px(board, board.width, 0).x + 6}` }));
  }
  return group;
}

function show(board, box, found) {
  const group = guides(board, found);
  const corner = px(board, box.x, box.y + box.h);
  group.append(shape("rect", { class: "ghost", x: corner.x, y: corner.y, width: Math.max(box.w, 0) * board.scale, height: Math.max(box.h, 0) * board.scale }));
  const us = +table().dataset.step !== 0.05;
  const told = (metres) => (us ? metres / 0.3048 : metres).toFixed(2);
  const [one, sign, other] = box.w + box.h === 0 ? [box.x, "/", box.y] : [box.w, "×", box.h];
  const words = `${told(one)} ${sign} ${told(other)}${us ? " ft" : ""}`;
  const text = shape("text", { class: "ghost-size", x: corner.x + (box.w * board.scale) / 2, y: corner.y - 6, "text-anchor": "middle" });
  text.textContent = found?.equal ? `${words}, equal gaps` : words;
  group.append(text);
}

// Tools
function arm(tool) {
  armed = tool;
  for (const t of table().querySelectorAll("[data-tool], .tools [data-fields]")) t.classList.toggle("on", t === tool || (!tool && t.dataset.tool === "move"));
  table().querySelector('[data-tool="move"]')?.setAttribute("aria-pressed", String(!tool));
  drawing()?.classList.toggle("drawing-on", Boolean(tool));
  const how = tool?.dataset.kind === "zone" ? "drag its outline on the face" : "drag it on the face, or tap for the usual size";
  say(tool ? `${tool.textContent}: ${how}. Esc ends.` : "");
}

function drawn(tool, box, tapped) {
  const { kind, width, height, halves } = tool.dataset;
  const fields = { ...JSON.parse(tool.dataset.fields), face: table().dataset.face };
  if (kind === "zone") {
    const right = box.x + box.w, top = box.y + box.h;
    fields["area.corners"] = [[box.x, box.y], [right, box.y], [right, top], [box.x, top]].map(([x, y]) => `${round(x)} m/${round(y)} m`).join("; ");
  } else {
    fields.x_m = `${round(Math.max(box.x, 0))} m`;
    fields.y_m = `${round(Math.max(box.y, 0))} m`;
    if (!tapped && width) fields[width] = `${round(halves ? box.w / 2 : box.w)} m`;
    if (!tapped && height) fields[height] = `${round(box.h)} m`;
  }
  return post(`${table().dataset.base}/${kind}/save`, fields);
}

function usual(tool) {
  const fields = JSON.parse(tool.dataset.fields);
  const feet = +table().dataset.step !== 0.05;
  const read = (name) => {
    const found = /^(?:([\d.]+)')?\s*(?:([\d.]+)(?: (\d+)\/(\d+))?")?$/.exec(fields[name] ?? "");
    if (feet && found) return (+(found[1] ?? 0)) * 0.3048 + (+(found[2] ?? 0) + (found[3] ? found[3] / found[4] : 0)) * 0.0254;
    return parseFloat(fields[name]) || 0.5;
  };
  const w = read(tool.dataset.width) * (tool.dataset.halves ? 2 : 1);
  return { w, h: read(tool.dataset.height) };
}

// Pointer
document.addEventListener("pointerdown", (event) => {
  const svg = event.target.closest?.("#picture svg.elevation");
  if (!svg || event.button > 0 || !table()) return;
  const board = boardOf(svg), start = metres(board, event);
  const handle = event.target.closest(".handle"), part = event.target.closest("a.part");
  if (armed) drag = { how: "draw", board, start, box: { x: start.x, y: start.y, w: 0, h: 0 } };
  else if (handle) {
    const chosen = svg.querySelector("a.part[aria-current], a.zone-link[aria-current]");
    const at = { x: start.x, y: start.y, w: 0, h: 0 };
    if (chosen.matches(".zone-link")) {
      drag = { how: "corner", board, start, zone: chosen, corner: handle.dataset.corner, box: at };
    } else drag = { how: "resize", board, start, part: chosen, corner: handle.dataset.corner, box: boxOf(chosen) };
  } else if (part) drag = { how: "move", board, start, part, box: boxOf(part) };
  else return;
  drag.pointer = event.pointerId;
  drag.at = [event.clientX, event.clientY];
  drag.moved = false;
  try { svg.setPointerCapture(event.pointerId); } catch { /* the pointer is gone again */ }
  if (drag.how !== "move") event.preventDefault();
});

// A finger on a part, a handle or with a tool in hand draws; elsewhere it scrolls the page.
document.addEventListener("touchstart", (event) => {
  const svg = event.target.closest?.("#picture svg.elevation");
  if (svg && (armed || event.target.closest("a.part, .handle"))) event.preventDefault();
}, { passive: false });

document.addEventListener("pointermove", (event) => {
  if (!drag || event.pointerId !== drag.pointer) return;
  if (!drag.moved && Math.hypot(event.clientX - drag.at[0], event.clientY - drag.at[1]) < STILL_PX) return;
  drag.moved = true;
  event.preventDefault();
  const { board, start } = drag, now = metres(board, event);
  const reach = event.altKey ? 0 : REACH_PX / board.scale / zoom(board);
  const step = event.altKey ? 0.01 : +table().dataset.step;
  let found;
  if (drag.how === "move") {
    const from = boxOf(drag.part);
    const free = { ...from, x: from.x + now.x - start.x, y: from.y + now.y - start.y };
    found = snapMove(free, others(drag.part), board, reach, step);
    drag.box = { ...from, x: found.x, y: found.y };
  } else if (drag.how === "corner") {
    found = snapCorner(now, others(), board, reach, step);
    drag.box = { x: found.x, y: found.y, w: 0, h: 0 };
  } else {
    found = snapCorner(now, others(drag.part), board, reach, step);
    const from = drag.how === "resize" ? boxOf(drag.part) : null;
    const fixed = from
      ? { x: drag.corner.includes("w") ? from.x + from.w : from.x, y: drag.corner.includes("s") ? from.y + from.h : from.y }
      : (drag.fixed ??= snapCorner(start, others(), board, reach, step));
    drag.box = { x: Math.min(fixed.x, found.x), y: Math.min(fixed.y, found.y), w: Math.abs(found.x - fixed.x), h: Math.abs(found.y - fixed.y) };
  }
  show(board, drag.box, found);
});

document.addEventListener("pointerup", (event) => {
  if (!drag || event.pointerId !== drag.pointer) return;
  const done = drag;
  drag = null;
  done.board.svg.querySelector(".guides").replaceChildren();
  if (done.how === "draw") {
    const tool = armed, size = usual(tool), tapped = !done.moved;
    if (tapped && tool.dataset.kind === "zone") return say("Drag the zone's outline on the face.");
    const box = tapped ? { ...size, x: done.start.x - size.w / 2, y: done.start.y - size.h / 2 } : done.box;
    if (!tapped && (box.w < 0.02 || box.h < 0.02)) return say("That was too small to draw; drag a larger box.");
    const step = +table().dataset.step;
    if (tapped) Object.assign(box, snapMove(box, others(), done.board, REACH_PX / done.board.scale, step));
    drawn(tool, box, tapped);
  } else if (done.how === "corner") {
    const to = { corner: done.corner, x_m: round(Math.max(done.box.x, 0)), y_m: round(Math.max(done.box.y, 0)) };
    const address = `${table().dataset.base}/zone/${done.zone.dataset.id}/corner`;
    if (done.moved) post(address, () => ({ version: versionOf(done.zone), ...to }));
  } else if (done.moved) {
    dragEnded = performance.now();
    send(done.part, done.box);
  } else if (done.how === "move") choose(done.part);
});
document.addEventListener("pointercancel", () => { drag?.board.svg.querySelector(".guides").replaceChildren(); drag = null; });
document.addEventListener("dragstart", (event) => { if (event.target.closest?.("#picture")) event.preventDefault(); });

function choose(link) {
  wanted = link.dataset.kind ? `${link.dataset.kind}/${link.dataset.id}` : null;
  return post(link.getAttribute("href"), {}, "GET");
}

document.addEventListener("click", (event) => {
  const tool = event.target.closest?.(".tools [data-fields]"), move = event.target.closest?.('[data-tool="move"]');
  if (event.ctrlKey || event.metaKey) return;
  // A click without a pointer comes from the keyboard: the form is the way there.
  if (tool && event.detail > 0) {
    event.preventDefault();
    arm(armed === tool ? null : tool);
    tool.closest("details")?.removeAttribute("open");
  } else if (move) arm(null);
  const link = event.target.closest?.("#picture svg a");
  if (!link) return;
  event.preventDefault();
  // The click that ends a drag chooses nothing.
  if (performance.now() - dragEnded < 60) return;
  if (event.detail === 0 || (link.matches(".zone-link") && !armed)) choose(link);
});

// Keyboard
const MOVES = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };
document.addEventListener("keydown", (event) => {
  if (!table()) return;
  const key = event.key.toLowerCase(), typing = event.target.matches("input, select, textarea");
  if ((event.ctrlKey || event.metaKey) && !typing && (key === "z" || key === "y")) {
    event.preventDefault();
    return document.getElementById(key === "y" || event.shiftKey ? "redo" : "undo")?.click();
  }
  if (event.key === "Escape") return arm(null);
  const part = event.target.closest?.("a.part");
  if (!part) return;
  if (event.key === "Delete") { event.preventDefault(); return post(url(part, "delete"), {}); }
  if ((event.ctrlKey || event.metaKey) && key === "d" && part.dataset.kind !== "zone") { event.preventDefault(); return post(url(part, "duplicate"), {}); }
  const move = MOVES[event.key];
  if (!move || event.ctrlKey || event.metaKey) return;
  event.preventDefault();
  const step = event.altKey ? 0.01 : +table().dataset.step * (event.shiftKey ? 10 : 1);
  nudged ??= { part, box: boxOf(part) };
  nudged.box.x = Math.max(0, nudged.box.x + move[0] * step);
  nudged.box.y = Math.max(0, nudged.box.y + move[1] * step);
  show(boardOf(drawing()), nudged.box, null);
  window.clearTimeout(nudged.timer);
  nudged.timer = window.setTimeout(() => { const n = nudged; nudged = null; send(n.part, n.box); }, NUDGE_WAIT);
});

// A late answer would hide what was done since. A picture tried while typing is drawn only on the table it was asked on; when
// a change is answered after a later one, the table is asked for anew. A refused change is drawn: it has a fault to tell.
const triedOn = new WeakMap(), changes = new WeakMap();
let sent = 0, newest = 0;
document.addEventListener("htmx:before:request", ({ detail: { ctx } }) => {
  if (ctx.target?.id === "picture") triedOn.set(ctx, table());
  if (ctx.target?.id === "table") changes.set(ctx, ++sent);
});
document.addEventListener("htmx:before:swap", (event) => {
  const { ctx } = event.detail, number = changes.get(ctx);
  if (triedOn.has(ctx) && triedOn.get(ctx) !== table()) event.preventDefault();
  if (number < newest && ctx.response.status < 400) {
    event.preventDefault();
    post(table().dataset.url, {}, "GET");
  } else if (number > newest) newest = number;
});

// What had the focus keeps it when the server drew it anew.
let focused = "";
document.addEventListener("htmx:before:swap", () => { focused = document.activeElement?.id ?? ""; });

// After the server drew again: the address follows, the focus stays on the part, the tool stays in the hand.
document.addEventListener("htmx:after:swap", () => {
  const now = table();
  if (!now) return;
  if (now.dataset.url) history.replaceState(history.state, "", now.dataset.url);
  if (armed && !armed.isConnected) {
    const same = [...now.querySelectorAll(".tools [data-fields]")].find((t) => t.textContent === armed.textContent);
    arm(same ?? null);
  }
  if (wanted) {
    const [kind, id] = wanted.split("/");
    now.querySelector(`a.part[data-kind="${kind}"][data-id="${id}"]`)?.focus({ preventScroll: true });
    wanted = null;
  } else if (focused && document.activeElement === document.body) {
    document.getElementById(focused)?.focus({ preventScroll: true });
  }
});

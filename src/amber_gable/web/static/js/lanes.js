// Face lanes: a tap or the arrow keys pick a slot; the why panel follows. Without this, segments are plain links.

function setUp(lanes) {
  const svg = lanes.querySelector("svg");
  const cursor = svg.querySelector(".cursor");
  const data = lanes.dataset;
  const geometry = { dayW: +data.dayw, step: +data.step, slotW: +data.slotw, rowH: +data.rowh };
  const faces = data.faces.split(" ");
  const perDay = Math.round(geometry.dayW / geometry.slotW);
  // When each day's strip begins: where the clock changes, days are not all equally long.
  const starts = data.starts.split(" ").map(Number);
  const days = starts.length;
  let at = null;

  const here = new URLSearchParams(location.search);
  const known = faces.indexOf(here.get("face"));
  if (cursor.getAttribute("x") > 0) at = place(+cursor.getAttribute("x") + 1, known < 0 ? Math.floor(+cursor.getAttribute("y") / geometry.rowH) : known);

  function place(x, row) {
    const day = Math.min(Math.max(Math.floor(x / geometry.step), 0), days - 1);
    const slot = Math.min(Math.max(Math.floor((x - day * geometry.step) / geometry.slotW), 0), perDay - 1);
    return { day, slot, row: Math.min(Math.max(row, 0), faces.length - 1) };
  }

  function show() {
    const x = at.day * geometry.step + at.slot * geometry.slotW;
    cursor.setAttribute("x", x - 0.5);
    cursor.setAttribute("y", at.row * geometry.rowH + 15);
    const left = x - lanes.scrollLeft;
    const names = lanes.querySelector(".lane-names").offsetWidth;
    if (left < 0) lanes.scrollLeft = x - 20;
    else if (left > lanes.clientWidth - names - 20) lanes.scrollLeft = x - lanes.clientWidth + names + 40;
    if (!data.href) return;
    const seconds = starts[at.day] + at.slot * +data.slots;
    const moment = encodeURIComponent(new Date(seconds * 1000).toISOString());
    const joined = data.href.endsWith("?") ? data.href : `${data.href}&`;
    const url = `${joined}face=${encodeURIComponent(faces[at.row])}&at=${moment}`;
    window.clearTimeout(show.timer);
    show.timer = window.setTimeout(() => {
      window.htmx.ajax("GET", url, { target: "#why", swap: "outerHTML" });
      history.replaceState(null, "", url);
    }, 120);
  }

  lanes.addEventListener("click", (event) => {
    if (!data.href || event.ctrlKey || event.metaKey || !event.target.closest("svg")) return;
    const box = svg.getBoundingClientRect();
    const y = event.clientY - box.top - 34;
    if (y < 0) return;
    event.preventDefault();
    at = place(event.clientX - box.left, Math.floor(y / geometry.rowH));
    show();
  });
  lanes.addEventListener("keydown", (event) => {
    const moves = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
    const move = moves[event.key];
    if (!move || event.target !== lanes) return;
    event.preventDefault();
    if (!at) at = { day: 0, slot: 8, row: 0 };
    else {
      let slot = at.slot + move[0], day = at.day;
      if (slot < 0 && day > 0) { day -= 1; slot = perDay - 1; }
      if (slot >= perDay && day < days - 1) { day += 1; slot = 0; }
      at = { day, slot: Math.min(Math.max(slot, 0), perDay - 1), row: Math.min(Math.max(at.row + move[1], 0), faces.length - 1) };
    }
    show();
  });
}

document.querySelectorAll("[data-lanes]").forEach(setUp);

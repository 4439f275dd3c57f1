// Face lanes: a tap, the arrow keys, the slider or its buttons pick a slot; the why panel follows. Without this, segments
// and faces are plain links.

function setUp(lanes) {
  const data = lanes.dataset;
  const geometry = { dayW: +data.dayw, step: +data.step, slotW: +data.slotw, rowH: +data.rowh };
  const faces = data.faces.split(" ");
  const perDay = Math.round(geometry.dayW / geometry.slotW);
  // When each day's strip begins: where the clock changes, days are not all equally long.
  const starts = data.starts.split(" ").map(Number);
  const days = starts.length;
  const slider = data.href ? document.querySelector("[data-slider]") : null;
  const range = slider?.querySelector("input");
  const drawing = () => lanes.querySelector("svg");
  const cursor = () => lanes.querySelector(".cursor");
  let at = null;

  const here = new URLSearchParams(location.search);
  const known = faces.indexOf(here.get("face"));
  if (cursor().getAttribute("x") > -1) {
    const row = Math.floor(+cursor().getAttribute("y") / geometry.rowH);
    at = place(+cursor().getAttribute("x") + 1, known < 0 ? row : known);
    follow();
  }
  if (slider) {
    slider.hidden = false;
    range.max = perDay - 1;
    if (at) range.value = at.slot;
    range.addEventListener("input", () => {
      at = { day: at?.day ?? 0, row: at?.row ?? 0, slot: +range.value };
      show();
    });
    slider.addEventListener("click", (event) => {
      const by = +event.target.closest("[data-move]")?.dataset.move;
      if (by) move(Math.abs(by) === 1 ? by : 0, 0, Math.abs(by) === 1 ? 0 : Math.sign(by));
    });
    document.addEventListener("click", (event) => {
      const face = event.target.closest("[data-face]")?.dataset.face;
      if (face && at) { at = { ...at, row: faces.indexOf(face) }; mark(); }
    });
    document.addEventListener("click", (event) => {
      const by = +event.target.closest("[data-quarter]")?.dataset.quarter;
      if (!by || !at) return;
      at = { ...at, slot: Math.min(Math.max(at.slot + by, 0), perDay - 1) };
      mark();
    });
  }

  function place(x, row) {
    const day = Math.min(Math.max(Math.floor(x / geometry.step), 0), days - 1);
    const slot = Math.min(Math.max(Math.floor((x - day * geometry.step) / geometry.slotW), 0), perDay - 1);
    return { day, slot, row: Math.min(Math.max(row, 0), faces.length - 1) };
  }

  function left() {
    return at.day * geometry.step + at.slot * geometry.slotW;
  }

  // Keeps the cursor in sight.
  function follow() {
    const x = left(), seen = x - lanes.scrollLeft;
    const names = lanes.querySelector(".lane-names").offsetWidth;
    if (seen < 0) lanes.scrollLeft = x - 20;
    else if (seen > lanes.clientWidth - names - 20) lanes.scrollLeft = x - lanes.clientWidth + names + 40;
  }

  function mark() {
    cursor().setAttribute("x", left() - 0.5);
    cursor().setAttribute("y", at.row * geometry.rowH + 15);
    if (range) range.value = at.slot;
    follow();
  }

  function address(seconds, row) {
    const moment = encodeURIComponent(new Date(seconds * 1000).toISOString());
    const joined = data.href.endsWith("?") ? data.href : `${data.href}&`;
    return `${joined}face=${encodeURIComponent(faces[row])}&at=${moment}`;
  }

  // `kept`: the address stays what it is, so that a page opened for now is one for now when it is loaded again; unless
  // somebody moved a moment ago, which waits to be shown with it.
  function show(kept = false) {
    mark();
    if (!data.href) return;
    show.moved ||= !kept;
    const url = address(starts[at.day] + at.slot * +data.slots, at.row);
    window.clearTimeout(show.timer);
    show.timer = window.setTimeout(() => {
      window.htmx.ajax("GET", url, { target: "#why", swap: "outerHTML" });
      if (show.moved) history.replaceState(null, "", url);
      show.moved = false;
    }, 120);
  }

  // Beyond the days shown lies another page.
  function move(slots, rows, byDay = 0) {
    if (!at) at = { day: 0, slot: 16, row: 0 };
    let slot = at.slot + slots, day = at.day + byDay;
    if (slot < 0) { day -= 1; slot = perDay - 1; }
    if (slot >= perDay) { day += 1; slot = 0; }
    if ((day < 0 || day >= days) && data.href) {
      const beyond = starts[at.day] + slot * +data.slots + 86400 * (day - at.day);
      const page = document.querySelector(day < 0 ? "[data-earlier]" : "[data-later]");
      if (page) window.location.assign(address(beyond, at.row));
      return;
    }
    if (day < 0 || day >= days) return;
    at = { day, slot, row: Math.min(Math.max(at.row + rows, 0), faces.length - 1) };
    show();
  }

  // A drawing that comes anew under the finger takes the click with it, not the pointer: no tap is lost.
  let down = null;
  lanes.addEventListener("pointerdown", (event) => { down = event; });
  lanes.addEventListener("pointerup", (event) => {
    const moved = !down || Math.hypot(event.clientX - down.clientX, event.clientY - down.clientY) > 8;
    if (moved || !data.href || event.button || event.ctrlKey || event.metaKey || !event.target.closest("svg")) return;
    const box = drawing().getBoundingClientRect();
    const y = event.clientY - box.top - 34;
    if (y < 0) return;
    at = place(event.clientX - box.left, Math.floor(y / geometry.rowH));
    show();
  });
  lanes.addEventListener("click", (event) => {
    if (data.href && !event.ctrlKey && !event.metaKey) event.preventDefault();
  });
  lanes.addEventListener("keydown", (event) => {
    const moves = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
    const by = moves[event.key];
    if (!by || event.target !== lanes) return;
    event.preventDefault();
    move(...by);
  });
  // A drawing that came anew, with how sure it is, has its cursor where the page was asked, not where it stands by now;
  // what is told of that moment is told anew.
  document.addEventListener("htmx:after:swap", () => {
    const fresh = document.querySelector("[data-shown]");
    if (!fresh) return;
    fresh.removeAttribute("data-shown");
    if (at) show(true);
  });
}

document.querySelectorAll("[data-lanes]").forEach(setUp);

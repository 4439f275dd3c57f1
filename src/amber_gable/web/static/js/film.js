// The film story: the stroke, its flags and what befalls it move with the slider.
import { follow } from "./moments.js";

const film = document.querySelector("[data-film]");
if (film) follow(film, show);

function show(m) {
  const head = film.querySelector("[data-head]"), scroll = film.querySelector(".film-scroll");
  head.textContent = m.head;
  head.className = `answer ${m.ok ? "yes" : "no"}`;
  film.querySelector("[data-told]").textContent = m.told;
  set(film.querySelector("[data-laid]"), { x1: m.x, x2: m.x });
  for (const n of [0, 1, 2]) {
    const [begin, end] = m.events[n] ?? [0, 0];
    set(film.querySelector(`[data-event="${n}"]`), { x: begin, width: Math.max(end - begin, 0) });
  }
  m.flags.forEach((f, i) => {
    const group = film.querySelector(`[data-flag="${i}"]`);
    film.querySelector(`[data-flag-when="${i}"]`).textContent = f.when;
    group.setAttribute("visibility", f.x === null ? "hidden" : "visible");
    if (f.x === null) return;
    set(group.querySelector(".film-range"), { x1: f.early ?? f.x, x2: f.late ?? f.x });
    set(group.querySelector(".film-run"), { x1: m.x, x2: f.x });
    set(group.querySelector(".film-mark"), { x1: f.x, x2: f.x });
    set(group.querySelector(".film-name"), { x: f.name_x, "text-anchor": f.anchor });
  });
  if (m.x < scroll.scrollLeft || m.x > scroll.scrollLeft + scroll.clientWidth - 60) scroll.scrollLeft = m.x - 80;
}

function set(element, attributes) {
  for (const [name, value] of Object.entries(attributes)) element.setAttribute(name, value);
}

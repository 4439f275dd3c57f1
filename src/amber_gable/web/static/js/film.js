// The film story follows its slider without asking the server: every quarter hour of the day came with the page.

const film = document.querySelector("[data-film]");
if (film) setUp(film);

function setUp(film) {
  const moments = JSON.parse(film.querySelector("[data-moments]").textContent);
  const range = film.querySelector("input[type=range]");
  const scroll = film.querySelector(".film-scroll");
  let chosen = +film.dataset.chosen;

  function show(n) {
    chosen = Math.min(Math.max(n, 0), moments.length - 1);
    const m = moments[chosen];
    range.value = chosen;
    range.setAttribute("aria-valuetext", m.title);
    film.querySelector("[data-title]").textContent = m.title;
    const head = film.querySelector("[data-head]");
    head.textContent = m.head;
    head.className = `answer ${m.ok ? "yes" : "no"}`;
    film.querySelector("[data-told]").textContent = m.told;
    move("[data-laid]", { x1: m.x, x2: m.x });
    for (const n of [0, 1, 2]) {
      const [begin, end] = m.events[n] ?? [0, 0];
      move(`[data-event="${n}"]`, { x: begin, width: Math.max(end - begin, 0) });
    }
    m.flags.forEach((f, i) => {
      const group = film.querySelector(`[data-flag="${i}"]`);
      film.querySelector(`[data-flag-when="${i}"]`).textContent = f.when;
      group.setAttribute("visibility", f.x === null ? "hidden" : "visible");
      if (f.x === null) return;
      set(group.querySelector(".film-range"), { x1: f.early ?? f.x, x2: f.late ?? f.x });
      set(group.querySelector(".film-run"), { x1: m.x, x2: f.x });
      set(group.querySelector(".film-mark"), { x1: f.x, x2: f.x });
      set(group.querySelector(".film-name"), { x: f.x + 5 });
    });
    if (m.x < scroll.scrollLeft || m.x > scroll.scrollLeft + scroll.clientWidth - 60) scroll.scrollLeft = m.x - 80;
  }

  function move(selector, attributes) {
    set(film.querySelector(selector), attributes);
  }

  function set(element, attributes) {
    for (const [name, value] of Object.entries(attributes)) element.setAttribute(name, value);
  }

  function keep() {
    const url = new URL(location.href);
    url.searchParams.set("at", moments[chosen].at);
    history.replaceState(null, "", url);
  }

  range.addEventListener("input", () => show(+range.value));
  range.addEventListener("change", keep);
  film.addEventListener("click", (event) => {
    const by = +event.target.closest("[data-move]")?.dataset.move;
    if (!by || chosen + by < 0 || chosen + by >= moments.length) return;
    event.preventDefault();
    show(chosen + by);
    keep();
  });
  show(chosen);
}

// The house plan with sun follows its slider without asking the server: every quarter hour of the day came with the page.

const house = document.querySelector("[data-sun]");
if (house) setUp(house);

function setUp(house) {
  const moments = JSON.parse(house.querySelector("[data-moments]").textContent);
  const range = house.querySelector("input[type=range]");
  let chosen = +house.dataset.chosen;

  function show(n) {
    chosen = Math.min(Math.max(n, 0), moments.length - 1);
    const m = moments[chosen];
    range.value = chosen;
    range.setAttribute("aria-valuetext", m.title);
    house.querySelector("[data-title]").textContent = m.title;
    house.querySelector("[data-sky]").textContent = m.sky;
    house.querySelector("[data-open]").textContent = m.open;
    house.querySelector("[data-shadow]").setAttribute("d", m.shadow);
    const disc = house.querySelector("[data-disc]");
    disc.setAttribute("visibility", m.sun ? "visible" : "hidden");
    if (m.sun) disc.setAttribute("transform", `translate(${m.sun[0]} ${m.sun[1]})`);
    for (const [id, now] of Object.entries(m.walls)) {
      const wall = house.querySelector(`[data-wall="${id}"]`), row = house.querySelector(`[data-row="${id}"]`);
      if (wall) {
        wall.querySelector(".sun-lit").setAttribute("visibility", now.lit ? "visible" : "hidden");
        const line = wall.querySelector(".sun-wall");
        line.classList.toggle("open", !now.letter);
        if (now.letter) line.setAttribute("stroke", `url(#h-${now.letter === "?" ? "unknown" : now.letter})`);
        else line.removeAttribute("stroke");
        wall.querySelector("text").textContent = now.letter || "✓";
      }
      row.className = now.letter ? "no" : "yes";
      row.querySelector("[data-letter]").textContent = now.letter || "✓";
      row.querySelector("[data-words]").textContent = now.words + (now.sure ? `, ${now.sure} sure` : "");
      row.querySelector("[data-lit]").textContent = now.lit ? "in the sun" : "";
    }
    for (const link of house.querySelectorAll("[data-wall], [data-row] a")) {
      const url = new URL(link.getAttribute("href"), location.href);
      url.searchParams.set("at", m.at);
      link.setAttribute("href", url.pathname + url.search);
    }
  }

  function keep() {
    const url = new URL(location.href);
    url.searchParams.set("at", moments[chosen].at);
    history.replaceState(null, "", url);
  }

  range.addEventListener("input", () => show(+range.value));
  range.addEventListener("change", keep);
  house.addEventListener("click", (event) => {
    const by = +event.target.closest("[data-move]")?.dataset.move;
    if (!by || chosen + by < 0 || chosen + by >= moments.length) return;
    event.preventDefault();
    show(chosen + by);
    keep();
  });
  show(chosen);
}

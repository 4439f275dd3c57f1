// The house plan with sun: sun, shadow and walls move with the slider.
import { follow } from "./moments.js";

const house = document.querySelector("[data-sun]");
if (house) follow(house, show);

function show(m) {
  house.querySelector("[data-sky]").textContent = m.sky;
  house.querySelector("[data-open]").textContent = m.open;
  house.querySelector("[data-shadow]").setAttribute("d", m.shadow);
  house.querySelector("[data-others]").setAttribute("d", m.others);
  const disc = house.querySelector("[data-disc]");
  disc.setAttribute("visibility", m.sun ? "visible" : "hidden");
  if (m.sun) disc.setAttribute("transform", `translate(${m.sun[0]} ${m.sun[1]})`);
  for (const [id, now] of Object.entries(m.walls)) {
    const wall = house.querySelector(`[data-wall="${id}"]`);
    if (wall) showWall(wall, now);
    showRow(house.querySelector(`[data-row="${id}"]`), now);
  }
  for (const link of house.querySelectorAll("[data-wall], [data-row] a")) {
    const url = new URL(link.getAttribute("href"), location.href);
    url.searchParams.set("at", m.at);
    link.setAttribute("href", url.pathname + url.search);
  }
}

function showWall(wall, now) {
  wall.querySelector(".sun-lit").setAttribute("visibility", now.lit ? "visible" : "hidden");
  const line = wall.querySelector(".sun-wall");
  line.classList.toggle("open", !now.letter);
  if (now.letter) line.setAttribute("stroke", `url(#h-${now.letter === "?" ? "unknown" : now.letter})`);
  else line.removeAttribute("stroke");
  wall.querySelector("text").textContent = now.letter || "✓";
}

function showRow(row, now) {
  row.className = now.letter ? "no" : "yes";
  row.querySelector("[data-letter]").textContent = now.letter || "✓";
  row.querySelector("[data-words]").textContent = now.words + (now.sure ? `, ${now.sure} sure` : "");
  row.querySelector("[data-lit]").textContent = now.on;
}

// Follows long work: the wall fills, each quarter is said aloud, and when it is over the page shows what came of it.
const EVERY = 600, WHEN_SILENT = 3000;
const QUARTERS = ["", "a quarter is done", "half is done", "three quarters are done", "done"];

for (const card of document.querySelectorAll("[data-run]")) follow(card, 0);

async function follow(card, told) {
  let wait = EVERY, quarter = told;
  try {
    const answer = await fetch(`/runs/${card.dataset.run}`, { headers: { "hx-request": "true" } });
    if (answer.status === 404) return over(card);
    const bar = new DOMParser().parseFromString(await answer.text(), "text/html").querySelector(".run-bar");
    if (!["waiting", "running"].includes(bar.dataset.state)) return over(card);
    card.querySelector(".run-bar").replaceChildren(...bar.childNodes);
    quarter = Math.floor(+bar.dataset.percent / 25);
    if (quarter > told) say(card, QUARTERS[quarter]);
  } catch {
    card.querySelector(".run-does").textContent = "the program does not answer; asking again";
    wait = WHEN_SILENT;
  }
  window.setTimeout(follow, wait, card, Math.max(told, quarter));
}

function say(card, words) {
  card.querySelector(".run-aloud").textContent = words;
}

// What somebody is typing is not taken away by a page that comes anew.
function over(card) {
  const typing = document.activeElement?.matches?.("input, textarea, select");
  if (!typing) return window.location.reload();
  const link = document.createElement("a");
  link.href = window.location.href;
  link.className = "act";
  link.textContent = "Show what came of it";
  card.replaceChildren(link);
}

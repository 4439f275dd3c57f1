// A slider over the quarter hours of a day that came with the page: it follows without asking the server, its two buttons
// step it, and the address keeps the one chosen.

export function follow(root, show) {
  const moments = JSON.parse(root.querySelector("[data-moments]").textContent);
  const range = root.querySelector("input[type=range]");
  let chosen = +root.dataset.chosen;

  function choose(n) {
    chosen = Math.min(Math.max(n, 0), moments.length - 1);
    range.value = chosen;
    range.setAttribute("aria-valuetext", moments[chosen].title);
    root.querySelector("[data-title]").textContent = moments[chosen].title;
    show(moments[chosen]);
  }

  function keep() {
    const url = new URL(location.href);
    url.searchParams.set("at", moments[chosen].at);
    history.replaceState(null, "", url);
  }

  range.addEventListener("input", () => choose(+range.value));
  range.addEventListener("change", keep);
  root.addEventListener("click", (event) => {
    const by = +event.target.closest("[data-move]")?.dataset.move;
    if (!by || chosen + by < 0 || chosen + by >= moments.length) return;
    event.preventDefault();
    choose(chosen + by);
    keep();
  });
  choose(chosen);
}

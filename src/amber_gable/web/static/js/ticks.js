// Ticks of a painting order stay on this device: a hand on the ladder need not wait for the program.
const KEPT_DAYS = 7;
const today = Math.floor(Date.now() / 86400000);

function kept() {
  try { return JSON.parse(localStorage.getItem("ticks") ?? "{}"); } catch { return {}; }
}

function keep(all) {
  try { localStorage.setItem("ticks", JSON.stringify(all)); } catch { /* a full or forbidden store: the tick still shows */ }
}

const known = Object.fromEntries(Object.entries(kept()).filter(([, entry]) => today - entry.day < KEPT_DAYS));
for (const list of document.querySelectorAll("[data-ticks]")) {
  const done = new Set(known[list.dataset.ticks]?.done ?? []);
  for (const box of list.querySelectorAll("input[type=checkbox]")) box.checked = done.has(box.value);
  list.addEventListener("change", () => {
    const now = [...list.querySelectorAll("input:checked")].map((box) => box.value);
    keep({ ...kept(), [list.dataset.ticks]: { day: today, done: now } });
  });
}

// J opens the jump, ? the list of keys. Without this the link leads to a page that does the same.
const jump = document.getElementById("jump"), keys = document.getElementById("keys");
const field = () => jump.querySelector("[name=find]");
const links = () => [...jump.querySelectorAll(".jump-found a")];

function show(dialog) {
  if (document.querySelector("dialog[open]")) return;
  dialog.showModal();
  if (dialog === jump) field().select();
}

document.addEventListener("keydown", (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey || event.target.matches("input, select, textarea")) return;
  if (event.key.toLowerCase() === "j") { event.preventDefault(); show(jump); }
  if (event.key === "?") { event.preventDefault(); show(keys); }
});
document.addEventListener("click", (event) => {
  if (!event.target.closest("[data-jump]")) return;
  event.preventDefault();
  show(jump);
});
// Beside the sheet is out of it.
for (const dialog of [jump, keys]) {
  dialog.addEventListener("click", (event) => { if (event.target === dialog) dialog.close(); });
}
// Arrows walk the list, Enter goes to the first that was found.
jump.addEventListener("keydown", (event) => {
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
  if (!step) return;
  event.preventDefault();
  const all = [field(), ...links()];
  all[(all.indexOf(document.activeElement) + step + all.length) % all.length].focus();
});
jump.querySelector("form").addEventListener("submit", (event) => {
  // What is typed quicker than it is found is looked up by the page itself.
  const [first] = links();
  if (!first || jump.querySelector("[aria-busy=true], .htmx-request")) return;
  event.preventDefault();
  location.assign(first.href);
});

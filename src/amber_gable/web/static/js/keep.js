// After a save the page stands where it stood: what was looked at stays in view, and what is said about the save comes
// to it. Without this the page begins at its top.
const KEPT = "kept-view", FRESH_MS = 60000;

document.addEventListener("submit", (event) => {
  const form = event.target;
  if (event.defaultPrevented || form.method !== "post") return;
  try {
    const sent = new URL(event.submitter?.getAttribute("formaction") || form.action, location.href).pathname;
    sessionStorage.setItem(KEPT, JSON.stringify({ paths: [location.pathname, sent], y: scrollY, at: Date.now() }));
  } catch { /* a full or closed store keeps no place */ }
});

function back() {
  let kept;
  try {
    kept = JSON.parse(sessionStorage.getItem(KEPT) ?? "null");
    sessionStorage.removeItem(KEPT);
  } catch { return; }
  if (!kept || !kept.paths?.includes(location.pathname) || location.hash || Date.now() - kept.at > FRESH_MS || kept.y < 1) return;
  // What is at fault is what one must see.
  if (document.querySelector("main .fault, main [role=alert]")) return;
  scrollTo({ top: kept.y, behavior: "instant" });
  document.querySelector("main .said")?.classList.add("beside");
}
back();
document.addEventListener("click", (event) => {
  if (!event.target.closest(".said")) document.querySelector(".said.beside")?.classList.remove("beside");
});

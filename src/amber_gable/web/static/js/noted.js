// What was noted on Today keeps its place under the finger: the card stays where it was and covers the spot that was tapped,
// and a second tap there right after the first is the same tap.
const SAME_SPOT_PX = 40, SAME_TAP_MS = 1500, ROUND_IT_PX = 12;
const NOTES = ".noting button, .work-row form button, .undo-touch button, .wait-test button";
let last = null, tapped = null;

document.addEventListener("click", (event) => {
  const button = event.target.closest?.(NOTES);
  if (!button) return;
  // A key that is pressed has no place on the screen.
  const again = event.detail > 0 && last && button !== last.button && event.timeStamp - last.at < SAME_TAP_MS
    && Math.hypot(event.pageX - last.x, event.pageY - last.y) < SAME_SPOT_PX;
  if (again) {
    event.preventDefault();
    event.stopImmediatePropagation();
    return;
  }
  last = { button, at: event.timeStamp, x: event.pageX, y: event.pageY };
  const place = button.closest(".work-card, .work-row");
  const top = place?.getBoundingClientRect().top;
  tapped = place && { top, covers: button.getBoundingClientRect().bottom + ROUND_IT_PX - top, before: notedNow() };
}, true);

function notedNow() {
  return new Set([...document.querySelectorAll("[data-noted]")].map((e) => e.dataset.noted));
}

document.addEventListener("htmx:after:swap", () => {
  if (!tapped) return;
  const { covers, top, before } = tapped;
  const place = [...document.querySelectorAll("[data-noted]")].find((e) => !before.has(e.dataset.noted));
  if (!place) return;
  tapped = null;
  place.style.minHeight = `${covers}px`;
  window.scrollBy(0, place.getBoundingClientRect().top - top);
  // Who works by keys goes on from here, not from the top of the page.
  place.tabIndex = -1;
  place.focus({ preventScroll: true });
});

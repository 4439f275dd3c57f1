// Number keys jump between stages; the print button prints. Nothing here is needed to use a page.
document.addEventListener("keydown", (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey || event.target.matches("input, select, textarea")) return;
  const link = /^[0-9]$/.test(event.key) && document.querySelector(`.rail a[data-key="${event.key}"]`);
  if (link) link.click();
});
document.addEventListener("click", (event) => {
  if (event.target.closest("[data-print]")) window.print();
});
// A second tap while the first is on its way must not send a form twice.
document.addEventListener("submit", (event) => {
  const form = event.target;
  if (form.dataset.sent) return event.preventDefault();
  form.dataset.sent = "1";
  window.setTimeout(() => delete form.dataset.sent, 4000);
});

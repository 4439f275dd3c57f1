// Number keys jump between stages; the print button prints. Nothing here is needed to use a page.
document.addEventListener("keydown", (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey || event.target.matches("input, select, textarea")) return;
  const link = /^[0-9]$/.test(event.key) && document.querySelector(`.rail a[data-key="${event.key}"]`);
  if (link) link.click();
});
document.addEventListener("click", (event) => {
  if (event.target.closest("[data-print]")) window.print();
});
// The last thing done to the job; on a drawing table, which has buttons of its own, its own script does it.
document.addEventListener("keydown", (event) => {
  const key = event.key.toLowerCase();
  if (!(event.ctrlKey || event.metaKey) || (key !== "z" && key !== "y") || document.getElementById("table")) return;
  if (event.target.matches("input, select, textarea")) return;
  const button = document.getElementById(key === "y" || event.shiftKey ? "redo-job" : "undo-job");
  if (!button) return;
  event.preventDefault();
  button.click();
});
// The sheet of all stages closes as one expects: beside it, or by Escape.
const allStages = () => document.querySelector(".all-stages[open]");
document.addEventListener("click", (event) => {
  if (!event.target.closest(".all-stages")) allStages()?.removeAttribute("open");
});
document.addEventListener("keydown", (event) => {
  const open = event.key === "Escape" && allStages();
  if (!open) return;
  open.removeAttribute("open");
  open.querySelector("summary").focus();
});
// Enter in a field of a form whose buttons say different things means the button behind the field, never the form's first.
const SAYS = "button:not([type=button]):not([type=reset]):not([aria-hidden])";
const TYPED = "input:not([type=radio], [type=checkbox], [type=file], [type=range], [type=color])";
document.addEventListener("keydown", (event) => {
  const field = event.target, form = field.form;
  if (event.key !== "Enter" || event.isComposing || event.defaultPrevented || !form || !field.matches("input")) return;
  const buttons = [...form.querySelectorAll(SAYS)];
  if (buttons.length < 2 || !buttons.some((b) => b.name)) return;
  event.preventDefault();
  if (!field.matches(TYPED)) return;
  const behind = buttons.find((b) => field.compareDocumentPosition(b) & Node.DOCUMENT_POSITION_FOLLOWING);
  behind?.click();
});

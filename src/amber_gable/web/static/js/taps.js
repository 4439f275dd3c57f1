// No tap is lost: what is under way says so where it was asked for, and so does what failed, with a way to try again.
const SHOWN_AFTER = 400, LONG_AFTER = 8000;
const UNDER_WAY = "Under way…";
const LONG = "Still under way: the program has not answered yet. Nothing is lost; it goes on waiting.";
const SILENT = "Not sent: the program does not answer. What you entered is still here.";
const open = new Map();

// Beside the form, link or button it was asked with; else in a strip above the lower edge. What is asked again from the
// same place takes the note of the last time away.
const noted = new WeakMap();

function noteFor(source) {
  noted.get(source)?.remove();
  const asked = source.closest?.("form") ?? source;
  const beside = asked.isConnected && asked.matches("form, button") && !asked.closest("svg");
  const note = document.createElement("p");
  note.className = beside ? "tap-note" : "tap-note strip";
  note.setAttribute("role", "status");
  if (beside) asked.after(note);
  else document.body.append(note);
  noted.set(source, note);
  return note;
}

// `key` is the request, or the form that was sent the plain way.
function begin(key, source) {
  source.setAttribute("aria-busy", "true");
  noted.get(source)?.remove();
  const state = { source, note: null };
  const say = (words) => { (state.note ??= noteFor(source)).textContent = words; };
  state.timers = [window.setTimeout(say, SHOWN_AFTER, UNDER_WAY), window.setTimeout(say, LONG_AFTER, LONG)];
  open.set(key, state);
}

function end(key) {
  const state = open.get(key);
  if (!state) return;
  state.timers.forEach((timer) => window.clearTimeout(timer));
  state.note?.remove();
  state.source.removeAttribute("aria-busy");
  open.delete(key);
}

function failed(source, words, again) {
  const note = noteFor(source);
  note.classList.add("failed");
  note.setAttribute("role", "alert");
  note.textContent = `${words} `;
  if (!again) return;
  const button = document.createElement("button");
  button.type = "button";
  button.className = "act small";
  button.textContent = "Try again";
  button.addEventListener("click", () => { note.remove(); again(); });
  note.append(button);
}

function retry(ctx) {
  const source = ctx.sourceElement, submitter = ctx.request?.submitter;
  if (!source.isConnected || source === document.body) return null;
  return source.matches("form") ? () => source.requestSubmit(submitter?.isConnected ? submitter : undefined) : () => source.click();
}

document.addEventListener("htmx:before:request", (event) => begin(event.detail.ctx, event.detail.ctx.sourceElement));
document.addEventListener("htmx:finally:request", (event) => end(event.detail.ctx));
document.addEventListener("htmx:error", (event) => {
  const ctx = event.detail.ctx;
  if (!ctx?.sourceElement) return;
  end(ctx);
  failed(ctx.sourceElement, SILENT, retry(ctx));
});
// A refusal in words is told here; a form that comes back with its faults takes the form's place as ever.
document.addEventListener("htmx:before:response", (event) => {
  const ctx = event.detail.ctx, answer = ctx.response.raw;
  if (!answer.headers.get("content-type")?.includes("problem+json")) return;
  event.preventDefault();
  answer.json().then(
    ({ title, detail }) => failed(ctx.sourceElement, `${title}. ${detail}`, ctx.response.status >= 500 ? retry(ctx) : null),
    () => failed(ctx.sourceElement, SILENT, retry(ctx)),
  );
});
// An answer to a tap made before the page drew itself anew goes to what stands there now.
document.addEventListener("htmx:after:request", (event) => {
  const ctx = event.detail.ctx;
  if (ctx.target?.id && !ctx.target.isConnected) ctx.target = document.getElementById(ctx.target.id) ?? ctx.target;
});

// What is noted of the work carries a name and a time of where it was tapped: sent again, it is entered once.
const NOTES = /\/(today\/(note|test|spoiled|can|missing)|standing\/)/;
document.addEventListener("submit", (event) => {
  const form = event.target, said = event.submitter?.value ?? "";
  if (!NOTES.test(form.action) || form.dataset.tapped === said) return;
  form.dataset.tapped = said;
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  const name = [...bytes].map((b) => b.toString(16).padStart(2, "0")).join("");
  for (const [key, value] of [["touch", name], ["made", new Date().toISOString()]]) {
    let field = form.querySelector(`input[name=${key}]`);
    if (!field) {
      field = Object.assign(document.createElement("input"), { type: "hidden", name: key });
      form.append(field);
    }
    field.value = value;
  }
}, true);

// Forms sent the plain way: the second tap waits for the first one's page.
document.addEventListener("submit", (event) => {
  if (event.defaultPrevented) return;
  if (open.has(event.target)) event.preventDefault();
  else begin(event.target, event.target);
});
window.addEventListener("pageshow", () => [...open.keys()].forEach((key) => end(key)));

// What was chosen while the scripts were still on their way is sent now. A page come back to shows old choices, not new ones.
function different(control) {
  if (control.matches("select")) return [...control.options].some((o) => o.selected !== o.defaultSelected) && control.selectedIndex > 0;
  if (control.matches("[type=radio], [type=checkbox]")) return control.checked !== control.defaultChecked && (control.type !== "radio" || control.checked);
  // A slider writes its number its own way: 15 for 15.0.
  return control.type === "range" ? +control.value !== +control.defaultValue : control.value !== control.defaultValue;
}
function sendEarlyChoices() {
  document.documentElement.dataset.ready = "";
  if (performance.getEntriesByType("navigation")[0]?.type === "back_forward") return;
  const alone = "form[hx-trigger*=change] :is(input, select, textarea):not([type=hidden]), select[hx-trigger*=change]";
  const forms = new Set();
  for (const control of document.querySelectorAll(alone)) {
    const owner = control.closest("[hx-trigger*=change]");
    if (forms.has(owner) || !different(control)) continue;
    forms.add(owner);
    control.dispatchEvent(new Event("change", { bubbles: true }));
  }
}
// htmx starts to listen in a timer of its own, set when it was loaded; one set later runs after it.
document.addEventListener("DOMContentLoaded", () => { if (window.htmx) window.setTimeout(sendEarlyChoices); });

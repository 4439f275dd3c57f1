// The small builder beside "Fill the wall": each piece is written into the line as it would be typed.
function show() {
  for (const builder of document.querySelectorAll(".line-build[hidden]")) builder.hidden = false;
}

function piece(builder) {
  const of = (name) => builder.querySelector(`[data-piece=${name}]`);
  const said = (name) => of(name).value.trim();
  const size = said("width") && said("height") ? ` ${said("width")} x ${said("height")}` : "";
  const sill = said("sill") ? ` sill ${said("sill")}` : "";
  return `${said("count") || 1} ${said("kind")}${size}${sill}${of("shutters").checked ? ", shutters" : ""}`;
}

document.addEventListener("click", (event) => {
  const button = event.target.closest("[data-add-piece]");
  if (!button) return;
  const builder = button.closest(".line-build"), line = builder.parentElement.querySelector("[name=line]");
  line.value = [line.value.trim(), piece(builder)].filter(Boolean).join("; ");
});
document.addEventListener("htmx:after:swap", show);
show();

// "Where I am now": the browser's position put into the form, when it is asked for and allowed. Nothing needs it.
const FAILED = {
  1: "The browser may not tell where it is. Type the town instead.",
  2: "The place could not be found. Type the town instead.",
  3: "Finding the place took too long. Try again outdoors, or type the town.",
};

function put(form, name, value) {
  let field = form.elements[name];
  if (!field) {
    field = document.createElement("input");
    field.type = "hidden";
    field.name = name;
    form.append(field);
  }
  field.value = value;
}

async function found(button, said, { coords }) {
  const form = button.form, at = { latitude: coords.latitude.toFixed(5), longitude: coords.longitude.toFixed(5) };
  for (const [name, value] of Object.entries(at)) put(form, name, value);
  put(form, "time_zone", "");
  if (coords.altitude !== null && form.elements.altitude_m) put(form, "altitude_m", Math.round(coords.altitude));
  // A town that was chosen before would go before it.
  document.getElementById("towns")?.replaceChildren();
  const answer = await fetch(`/places/near?${new URLSearchParams(at)}`);
  const near = answer.ok ? await answer.json() : null;
  if (near) put(form, "place", near.place);
  said.textContent = `${at.latitude}, ${at.longitude}, to within ${Math.max(1, Math.round(coords.accuracy))} m${near ? `; ${near.words}` : ""}`;
}

for (const button of document.querySelectorAll("[data-here]")) {
  if (!navigator.geolocation) continue;
  const said = button.parentElement.querySelector("[role=status]");
  button.hidden = false;
  button.addEventListener("click", () => {
    said.textContent = "Looking …";
    navigator.geolocation.getCurrentPosition(
      (position) => found(button, said, position).catch(() => { said.textContent = FAILED[2]; }),
      (error) => { said.textContent = FAILED[error.code] ?? FAILED[2]; },
      { enableHighAccuracy: true, timeout: 20000, maximumAge: 60000 },
    );
  });
}

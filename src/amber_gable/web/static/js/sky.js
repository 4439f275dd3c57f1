// The strip of sky lives with the clock: once a minute it is fetched anew while somebody looks; what is unfolded stays so.
const EVERY = 60000;

window.setInterval(async () => {
  const sky = document.querySelector("#sky[data-live]");
  if (!sky || document.visibilityState !== "visible") return;
  try {
    const answer = await fetch(sky.dataset.live, { headers: { "hx-request": "true" } });
    if (!answer.ok) return;
    const fresh = new DOMParser().parseFromString(await answer.text(), "text/html").querySelector("#sky");
    for (const old of [...sky.children]) if (!old.matches(".sky-more, .sky-fold")) old.remove();
    for (const part of [...fresh.children]) if (!part.matches(".sky-more, .sky-fold")) sky.append(part);
  } catch {
    // The next minute asks again; the clock it shows says how old it is.
  }
}, EVERY);

// Words of the trade are explained where a page uses them first: touch or focus one. The table is the server's; without
// this script it stands at /glossary.
// What is touched for something else, and what has no room for more.
const NOT_IN = "a, button, summary, label, legend, h1, svg, script, style, textarea, select, option, dfn, code, dialog, [aria-hidden=true], .no-terms, "
  + ".tools, .title-block, .axis, .tally, .yard-do";
const sheet = document.getElementById("sheet");
let meanings = new Map(), wanted = null, told = 0;

const escaped = (word) => word.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");

function explain(root) {
  if (!wanted || !root) return;
  const texts = document.createTreeWalker(root, NodeFilter.SHOW_TEXT), found = [];
  while (texts.nextNode()) if (wanted.test(texts.currentNode.data)) found.push(texts.currentNode);
  for (let text of found) {
    const at = text.parentElement;
    if (!at || at.closest(NOT_IN) || !at.checkVisibility()) continue;
    for (let hit; text && (hit = next(text.data)); ) {
      const word = text.splitText(hit.index);
      text = word.splitText(hit.word.length);
      word.replaceWith(term(hit));
    }
  }
}

// The first word in a text that was not explained yet.
function next(data) {
  const every = new RegExp(wanted.source, "giu");
  for (const hit of data.matchAll(every)) {
    const meaning = meanings.get(hit[0].toLowerCase());
    if (meaning && !meaning.told) return { index: hit.index, word: hit[0], meaning };
  }
  return null;
}

function term({ word, meaning }) {
  meaning.told = true;
  const dfn = document.createElement("dfn"), words = document.createElement("span");
  words.id = `term-${++told}`;
  words.className = "term-words";
  words.role = "tooltip";
  words.textContent = meaning.words;
  dfn.className = "term";
  dfn.tabIndex = 0;
  dfn.setAttribute("aria-describedby", words.id);
  dfn.append(word, words);
  return dfn;
}

// Kept inside the sheet: what would stick out at its right opens to the left.
function place(event) {
  const dfn = event.target.closest?.("dfn.term");
  if (dfn) dfn.classList.toggle("to-left", dfn.getBoundingClientRect().left > window.innerWidth - 340);
}

document.addEventListener("focusin", place);
document.addEventListener("pointerover", place);
document.addEventListener("keydown", (event) => {
  if (event.key === "Escape" && event.target.matches("dfn.term")) event.target.blur();
});

if (sheet) {
  fetch("/glossary.json").then((answer) => (answer.ok ? answer.json() : [])).then((terms) => {
    for (const { forms, meaning } of terms) {
      const one = { words: meaning, told: false };
      for (const form of forms) meanings.set(form.toLowerCase(), one);
    }
    const longestFirst = [...meanings.keys()].sort((a, b) => b.length - a.length).map(escaped);
    wanted = new RegExp(`(?<![\\p{L}-])(?:${longestFirst.join("|")})(?![\\p{L}-])`, "iu");
    explain(sheet);
    document.addEventListener("htmx:afterSettle", (event) => explain(event.target));
    // What was folded away is first met when it is opened.
    document.addEventListener("toggle", (event) => { if (event.target.open) explain(event.target); }, true);
  }).catch(() => {});
}

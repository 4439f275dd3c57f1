// Words of the trade are explained where a page uses them first: touch or focus one. The table is the server's; without
// this script it stands at /glossary.
// What is touched for something else, and what has no room for more.
const NOT_IN = "a, button, summary, label, legend, h1, h2, h3, svg, script, style, textarea, select, option, dfn, code, dialog, [aria-hidden=true], .no-terms, "
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
  const dfn = document.createElement("dfn"), words = document.createElement("span");
  words.id = `term-${++told}`;
  words.className = "term-words";
  words.role = "tooltip";
  words.textContent = meaning.words;
  // Beside the sheet: what is read or copied there stays as it was written.
  document.body.append(words);
  dfn.className = "term";
  dfn.tabIndex = 0;
  dfn.setAttribute("aria-describedby", words.id);
  dfn.append(word);
  meaning.told = dfn;
  return dfn;
}

// What is being read when a piece of the page is exchanged, as when the odds come to an answer, goes on to be read.
let read = null;
function remember() {
  const asked = document.activeElement;
  read = [...meanings.values()].find(({ told }) => told === asked && wordsOf(told)?.classList.contains("shown")) ?? null;
}

// What was explained in a piece of the page that is gone is explained again where it stands next.
function anew() {
  const gone = read && !read.told?.isConnected;
  for (const meaning of new Set(meanings.values())) {
    if (!meaning.told || meaning.told.isConnected) continue;
    wordsOf(meaning.told)?.remove();
    meaning.told = null;
  }
  explain(sheet);
  // Focus that went elsewhere meanwhile stays there; getting it shows the words.
  if (gone && document.activeElement === document.body) read.told?.focus({ preventScroll: true });
}

const wordsOf = (dfn) => document.getElementById(dfn.getAttribute("aria-describedby"));
const asked = (event) => event.target.closest?.("dfn.term");

function place(dfn) {
  const words = wordsOf(dfn), box = dfn.getBoundingClientRect();
  words.classList.add("shown");
  // On a phone it has its place above the bar.
  words.style.left = `${Math.max(8, Math.min(box.left, window.innerWidth - words.offsetWidth - 8))}px`;
  const below = box.bottom + 5;
  words.style.top = `${below + words.offsetHeight > window.innerHeight ? box.top - words.offsetHeight - 5 : below}px`;
}

function show(event) {
  const dfn = asked(event);
  if (dfn) place(dfn);
}

function hide(event) {
  const dfn = asked(event);
  if (dfn && (event.type === "keydown" || document.activeElement !== dfn || event.type === "focusout")) wordsOf(dfn).classList.remove("shown");
}

document.addEventListener("focusin", show);
document.addEventListener("pointerover", show);
document.addEventListener("focusout", hide);
document.addEventListener("pointerout", hide);
document.addEventListener("keydown", (event) => { if (event.key === "Escape") hide(event); });
// A word that got the focus may be scrolled to: what it says goes along.
document.addEventListener("scroll", () => {
  for (const words of document.querySelectorAll(".term-words.shown")) {
    const dfn = document.querySelector(`dfn[aria-describedby="${words.id}"]`);
    if (dfn) place(dfn);
  }
}, { passive: true, capture: true });

if (sheet) {
  fetch("/glossary.json").then((answer) => (answer.ok ? answer.json() : [])).then((terms) => {
    for (const { forms, meaning } of terms) {
      const one = { words: meaning, told: null };
      for (const form of forms) meanings.set(form.toLowerCase(), one);
    }
    const longestFirst = [...meanings.keys()].sort((a, b) => b.length - a.length).map(escaped);
    wanted = new RegExp(`(?<![\\p{L}-])(?:${longestFirst.join("|")})(?![\\p{L}-])`, "iu");
    explain(sheet);
    document.addEventListener("htmx:before:swap", remember);
    document.addEventListener("htmx:after:swap", anew);
    // What was folded away is first met when it is opened.
    document.addEventListener("toggle", (event) => { if (event.target.open) explain(event.target); }, true);
  }).catch(() => {});
}

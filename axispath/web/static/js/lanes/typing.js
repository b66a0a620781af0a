// @ts-check
/** What both entries know: names that complete a word, and the lines that were typed before. */

import { read, write } from "../sheet/session.js";

const MOST = 7;
const EARLIER = 60; // lines that are remembered
const SHORTEST = 2; // letters before names are offered
const WORD = /[^\W\d_][\w]*$/u;
const LINES = "axispath lines"; // of this browser, whatever the sheet

/** @typedef {{name: string, signature: string, help: string}} Known a name that can be used */

/** The names that complete the word before the caret. @param {HTMLInputElement} field @param {Known[]} known */
export function offered(field, known) {
  const before = field.value.slice(0, field.selectionStart ?? field.value.length);
  const word = WORD.exec(before)?.[0].toLowerCase() ?? "";
  if (word.length < SHORTEST) return [];
  return known
    .filter((one) => one.name.toLowerCase().startsWith(word) && one.name.toLowerCase() !== word)
    .slice(0, MOST)
    .map((one, index) => ({ ...one, id: `completion-${index}`, index }));
}

/**
 * Where a name goes in place of the word before the caret, and how far the caret stays behind its end.
 * @param {HTMLInputElement} field @param {{name: string, signature: string}} word
 */
export function completed(field, word) {
  const end = field.selectionStart ?? field.value.length;
  const start = end - (WORD.exec(field.value.slice(0, end))?.[0].length ?? 0);
  const brackets = word.signature.includes("(") && field.value[end] !== "(" ? "()" : "";
  return { start, end, text: word.name + brackets, back: brackets ? 1 : 0 };
}

/** Put text into a field, the caret so far before its end. @param {HTMLInputElement} field @param {{start: number, end: number, text: string, back: number}} what */
export function put(field, { start, end, text, back }) {
  field.setRangeText(text, start, end, "end");
  const caret = start + text.length - back;
  field.setSelectionRange(caret, caret);
  field.focus();
}

/** The lines that were typed, the last one first. @returns {string[]} */
export const earlier = () => read(LINES) ?? [];

/** A line was typed: it can be had back. @param {string} text */
export function remember(text) {
  write(LINES, [text, ...earlier().filter((line) => line !== text)].slice(0, EARLIER));
}

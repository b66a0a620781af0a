// @ts-check
/** Whether a text that was pasted is a block of cells, as a spreadsheet or a table in a text has them. */

const NUMBER = /^[-+−–]?(\d+([.,]\d+)*|[.,]\d+)([eE][-+]?\d+)?\s*%?$/;

/** Rows of numbers below one another, the first of which may be heads. @param {string} text */
export function isBlock(text) {
  const rows = text.split(/\r\n|\r|\n/).filter((row) => row.trim());
  if (rows.length < 2) return false;
  const numbers = rows.map((row) => row.split(cut(row)).map((cell) => cell.trim()).filter(Boolean));
  const [first, ...others] = numbers;
  const plain = (/** @type {string[]} */ row) => row.length > 0 && row.every((cell) => NUMBER.test(cell));
  if (!others.every(plain)) return false;
  // A head has as many words as there are columns; a line of another kind above numbers has not.
  return plain(first) || (others[0].length > 1 && first.length === others[0].length && rows.length > 2);
}

/** What stands between the cells of a row. @param {string} row */
function cut(row) {
  return row.includes("\t") ? /\t/ : row.includes(";") ? /;/ : /,\s+|\s+|,(?=\S*,)/;
}

/** Signs with which a spreadsheet begins a formula. Common practice, no source. */
const formula = /^[=+\-@\t\r']/;
const isNumber = (text: string) => text.trim() !== '' && !Number.isNaN(Number(text));

/** Text that a spreadsheet would carry out gets an apostrophe before it, as in the tables that the server writes; other text stays as it is. */
const guarded = (text: string) => (formula.test(text) && !isNumber(text) ? `'${text}` : text);
const quoted = (text: string) => (/["\n\r,\t]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);

/** Rows as text for a file or the clipboard, fields quoted as RFC 4180 says. */
export const tableText = (rows: (string | number)[][], mark: ',' | '\t'): string =>
  rows.map((row) => row.map((value) => quoted(guarded(`${value}`))).join(mark)).join('\r\n') + '\r\n';

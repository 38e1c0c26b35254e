/** A text that a spreadsheet would take for a formula when it is opened there. */
export const runsAsFormula = (value: string): boolean => /^[=+\-@\t\r]/.test(value);

/** A text as a cell that a spreadsheet only shows. */
export const asShown = (value: string): string => (/^'*[=+\-@\t\r]/.test(value) ? `'${value}` : value);

/** The text of a cell that was made to be only shown. */
export const asMeant = (cell: string): string => (/^'+[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell);

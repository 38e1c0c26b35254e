/*
 * Every row but the clinic's own carries the clinic it belongs to. In the
 * database each foreign key is the pair (clinic, id), so a row can never hang
 * below another clinic's row whatever the code above does.
 */
export const id = { type: 'char', length: 36 } as const;
/** A SHA-256 in hex. */
export const sha256 = { type: 'char', length: 64 } as const;
export const day = { type: 'date' } as const;
export const moment = { type: 'datetime', precision: 3 } as const;
export const angle = { type: 'decimal', precision: 5, scale: 1 } as const;
export const figure = { type: 'decimal', precision: 7, scale: 2 } as const;
export const text = (length: number) => ({ type: 'varchar', length }) as const;

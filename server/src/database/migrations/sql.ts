/** Column type of an identifier. */
export const ID = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin';
export const TABLE = 'ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci';

/** A table whose rows belong to a clinic and may be pointed at only together with it. */
export const owned = (name: string, columns: string[]): string =>
  `CREATE TABLE IF NOT EXISTS \`${name}\` (
    id ${ID} NOT NULL PRIMARY KEY,
    clinic_id ${ID} NOT NULL,
    ${columns.join(',\n    ')},
    UNIQUE KEY ${name}_of_clinic (clinic_id, id),
    CONSTRAINT ${name}_clinic FOREIGN KEY (clinic_id) REFERENCES clinic (id)
  ) ${TABLE}`;

/** A reference inside one clinic. */
export const within = (table: string, column: string, target: string): string =>
  `CONSTRAINT ${table}_${column} FOREIGN KEY (clinic_id, ${column}) REFERENCES \`${target}\` (clinic_id, id)`;

/** The same, for a table that is there. */
export const withinIfMissing = (table: string, column: string, target: string): string =>
  `CONSTRAINT ${table}_${column} FOREIGN KEY IF NOT EXISTS ${table}_${column} (clinic_id, ${column}) REFERENCES \`${target}\` (clinic_id, id)`;

/** A trigger that refuses, where a condition holds; always, where none is given. */
export const refuse = (name: string, table: string, event: 'UPDATE' | 'DELETE', message: string, when = 'TRUE'): string =>
  `CREATE OR REPLACE TRIGGER ${name} BEFORE ${event} ON \`${table}\` FOR EACH ROW
   IF ${when} THEN SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = '${message}'; END IF`;

import { checkOf, VALUE_TABLES, valuesOf, type ValueCheck, type ValueTable } from '@dial-gauge/core';

/** How many values of a table were looked up. */
export interface Count {
  readonly table: ValueTable;
  readonly checked: number;
  readonly all: number;
}

/** By kind and id of the table: "norms boone-azen-1979". */
export function countsOf(checks: readonly ValueCheck[]): ReadonlyMap<string, Count> {
  return new Map(
    VALUE_TABLES.map((table): [string, Count] => {
      const values = valuesOf(table.kind, table.of)!;
      return [`${table.kind} ${table.of}`, { table, checked: values.filter((value) => checkOf(checks, value)).length, all: values.length }];
    }),
  );
}

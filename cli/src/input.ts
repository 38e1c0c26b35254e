import { parseArgs } from 'node:util';
import { explain } from '@dial-gauge/contract';
import type * as z from 'zod';

export type Outcome = { readonly exitCode: 0; readonly output: string } | { readonly exitCode: 2; readonly problems: readonly string[] };

/** Reads a file by name, or standard input for `-`. */
export type ReadText = (file: string) => string;

export const print = (result: unknown): Outcome => ({ exitCode: 0, output: JSON.stringify(result, null, 2) });
export const refuse = (...problems: string[]): Outcome => ({ exitCode: 2, problems });

/** The text of a file, or why it cannot be read. */
export function textOf(file: string, read: ReadText): { readonly text: string } | Outcome {
  try {
    return { text: read(file) };
  } catch (error) {
    return refuse(`${file}: cannot be read (${error instanceof Error ? error.message : String(error)})`);
  }
}

/** Reads one JSON file, holds it to its schema, and prints what it comes to. */
export function withFile<S extends z.ZodType>(
  command: string,
  schema: S,
  args: readonly string[],
  read: ReadText,
  answer: (file: z.output<S>) => unknown,
): Outcome {
  const [file, ...extra] = args;
  if (file === undefined || extra.length > 0) return refuse(`${command}: takes one file, or - for standard input`);
  const found = textOf(file, read);
  if ('exitCode' in found) return found;
  let json: unknown;
  try {
    json = JSON.parse(found.text);
  } catch (error) {
    return refuse(`${file}: is not JSON (${(error as SyntaxError).message}); allowed: one JSON object`);
  }
  const parsed = schema.safeParse(json);
  if (!parsed.success) return refuse(...explain(parsed.error).map((p) => `${p.path}: ${p.message}`));
  const answered = answer(parsed.data);
  return typeof answered === 'string' ? { exitCode: 0, output: answered } : print(answered);
}

/** One file and one option out of a list. */
export function fileAndOption<const O extends string>(
  command: string,
  name: string,
  allowed: readonly O[],
  args: readonly string[],
): { readonly file: string; readonly option: O } | Outcome {
  try {
    const { values, positionals } = parseArgs({ args: [...args], options: { [name]: { type: 'string' } }, allowPositionals: true });
    const [file, ...extra] = positionals;
    if (file === undefined || extra.length > 0) return refuse(`${command}: takes one file, or - for standard input`);
    const option = allowed.find((one) => one === values[name]);
    if (option === undefined)
      return refuse(
        `--${name}: ${values[name] === undefined ? 'is missing' : `"${String(values[name])}" is not known`}; allowed: ${allowed.join(', ')}`,
      );
    return { file, option };
  } catch (error) {
    if (error instanceof TypeError) return refuse(`arguments: ${error.message}`);
    throw error;
  }
}

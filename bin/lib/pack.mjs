import { readdir, readFile, writeFile } from 'node:fs/promises';
import { extname, join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants } from 'node:zlib';

const compress = promisify(brotliCompress);
const PACKED = new Set(['.js', '.css', '.svg']);
/** Below this a packed file saves nothing. */
const LEAST = 700;

/** Puts a brotli-packed copy beside every text file of a folder. */
export async function packFiles(folder) {
  const names = (await readdir(folder)).filter((name) => PACKED.has(extname(name)));
  await Promise.all(
    names.map(async (name) => {
      const plain = await readFile(join(folder, name));
      if (plain.length < LEAST) return;
      const options = { params: { [constants.BROTLI_PARAM_QUALITY]: 11, [constants.BROTLI_PARAM_SIZE_HINT]: plain.length } };
      await writeFile(join(folder, `${name}.br`), await compress(plain, options));
    }),
  );
}

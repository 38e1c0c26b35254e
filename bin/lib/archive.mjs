import { existsSync } from 'node:fs';
import { open } from 'node:fs/promises';
import sodium from 'libsodium-wrappers';
import { madeOnce } from './made-once.mjs';
import { Stop } from './say.mjs';

/** A backup: this line, the header of the stream, then pieces, each with its length before it: records, and as the last one what there is to know of them. */
const MAGIC = Buffer.from('dial-gauge backup 1\n');
const PIECE = 256 * 1024;
/** What there is to know of many tables is longer than a piece, and no longer than this. */
const LARGEST = 16 * PIECE;

/**
 * The key of backups. Made once where there is none; whoever loses it has no backup.
 *
 * @param make whether one may be made: for a restore there has to be one
 */
export async function backupKey(file, make) {
  await sodium.ready;
  if (!make && !existsSync(file))
    throw new Stop(
      `There is no key in ${file}. A backup opens with the key it was made with; put it there, or name it by DIAL_GAUGE_BACKUP_KEY_FILE.`,
    );
  const fresh = () => `${sodium.to_base64(sodium.crypto_secretstream_xchacha20poly1305_keygen(), sodium.base64_variants.ORIGINAL)}\n`;
  const key = Buffer.from(madeOnce(file, fresh).trim(), 'base64');
  const wanted = sodium.crypto_secretstream_xchacha20poly1305_KEYBYTES;
  if (key.length !== wanted) throw new Stop(`${file} holds ${key.length} bytes; allowed: ${wanted} bytes in base64`);
  return key;
}

/**
 * Writes records as they come, encrypted, and at their end what there is to know of them.
 *
 * @param records async iterable of buffers
 * @param manifest what is called once they have all come
 */
export async function writeArchive(file, key, records, manifest) {
  await sodium.ready;
  const out = await open(file, 'wx', 0o600);
  try {
    const { state, header } = sodium.crypto_secretstream_xchacha20poly1305_init_push(key);
    await out.write(Buffer.concat([MAGIC, header]));
    const push = async (bytes, tag) => {
      const sealed = sodium.crypto_secretstream_xchacha20poly1305_push(state, bytes, null, tag);
      const length = Buffer.alloc(4);
      length.writeUInt32BE(sealed.length);
      await out.write(Buffer.concat([length, sealed]));
    };
    const { crypto_secretstream_xchacha20poly1305_TAG_MESSAGE: MORE, crypto_secretstream_xchacha20poly1305_TAG_FINAL: LAST } = sodium;
    for await (const chunk of records) for (let at = 0; at < chunk.length; at += PIECE) await push(chunk.subarray(at, at + PIECE), MORE);
    await push(Buffer.from(JSON.stringify(await manifest())), LAST);
    await out.sync();
  } finally {
    await out.close();
  }
}

/**
 * Reads an archive piece by piece: what was changed, cut off or made with another key is refused where it begins.
 *
 * @param onManifest told what there is to know, once everything before it was read
 */
export async function* readArchive(file, key, onManifest) {
  await sodium.ready;
  const input = await open(file, 'r');
  try {
    const take = async (length, what) => {
      const bytes = Buffer.alloc(length);
      const { bytesRead } = await input.read(bytes, 0, length);
      if (bytesRead < length) throw new Stop(`${file} ends too early: ${what} is cut off. It is no whole backup.`);
      return bytes;
    };
    if (!(await take(MAGIC.length, 'its first line')).equals(MAGIC)) throw new Stop(`${file} is no backup of Dial Gauge.`);
    const header = await take(sodium.crypto_secretstream_xchacha20poly1305_HEADERBYTES, 'its header');
    const state = sodium.crypto_secretstream_xchacha20poly1305_init_pull(header, key);
    for (let last = false; !last;) {
      const length = (await take(4, 'a piece')).readUInt32BE();
      if (length > LARGEST) throw new Stop(`${file} cannot be opened: it was changed, or made with another key.`);
      const sealed = await take(length, 'a piece');
      const opened = sodium.crypto_secretstream_xchacha20poly1305_pull(state, sealed);
      if (!opened) throw new Stop(`${file} cannot be opened: it was changed, or made with another key.`);
      const piece = Buffer.from(opened.message);
      last = opened.tag === sodium.crypto_secretstream_xchacha20poly1305_TAG_FINAL;
      if (last) onManifest(JSON.parse(piece.toString('utf8')));
      else yield piece;
    }
  } finally {
    await input.close();
  }
}

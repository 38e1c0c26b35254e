import { fileTypeFromBuffer } from 'file-type';
import sharp from 'sharp';
import { refused } from '../../shared/problems.js';

const TAKEN = ['image/jpeg', 'image/png', 'image/webp'];
/** More pixels than this are not opened, however small the file is. */
const MOST_PIXELS = 50_000_000;
/** Longest side that is kept, in pixels. */
const LONGEST = 1_600;

export interface PlainPicture {
  readonly jpeg: Buffer;
  readonly width: number;
  readonly height: number;
}

/**
 * A plain picture out of whatever was sent: told by what it holds, not by what
 * it is called; opened and written anew, upright, so that no place, device or
 * anything else that came with it is kept.
 */
export async function plainPicture(sent: Buffer): Promise<PlainPicture> {
  const nothing = 'Nothing was attached.';
  const kind = await fileTypeFromBuffer(sent);
  if (!kind || !TAKEN.includes(kind.mime))
    throw refused('base64', `holds ${kind ? kind.mime : 'no picture'}; allowed: a picture as JPEG, PNG or WebP`, nothing);
  try {
    const { data, info } = await sharp(sent, { limitInputPixels: MOST_PIXELS, failOn: 'error', pages: 1 })
      .autoOrient()
      .resize({ width: LONGEST, height: LONGEST, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 82 })
      .toBuffer({ resolveWithObject: true });
    return { jpeg: data, width: info.width, height: info.height };
  } catch {
    throw refused(
      'base64',
      `is a broken picture, or one of more than ${MOST_PIXELS / 1e6} million pixels; allowed: one that opens`,
      nothing,
    );
  }
}

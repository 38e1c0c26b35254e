import type { FileView } from '@dial-gauge/contract';

/** Hands a file to whoever asked for it, as their browser does it. */
export function handOver(fileName: string, bytes: BlobPart, type: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([bytes], { type }));
  link.download = fileName;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href));
}

/** A file as the server sends it. */
export const handOverFile = ({ fileName, mediaType, base64 }: FileView): void => handOver(fileName, bytesOf(base64), mediaType);

/** Bytes that came as base64. */
const bytesOf = (base64: string): Uint8Array<ArrayBuffer> => Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));

/** The bytes of a file as base64, a part at a time: a large one would be too many arguments. */
export async function base64Of(file: Blob): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  let letters = '';
  for (let at = 0; at < bytes.length; at += 8192) letters += String.fromCharCode(...bytes.subarray(at, at + 8192));
  return btoa(letters);
}

import { zipSync } from 'fflate';

/** Several files as one, packed, by their names. */
export const parcel = (files: Readonly<Record<string, Uint8Array>>): Uint8Array => zipSync({ ...files });

import { createHash } from 'node:crypto';

/** SHA-256 in hex. Of a secret: a copy of the table it stands in opens nothing. */
export const hashOf = (secret: string | Buffer): string => createHash('sha256').update(secret).digest('hex');

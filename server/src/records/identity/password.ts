import { hash } from '@node-rs/argon2';

/** Argon2id with the library's algorithm default and the memory and time cost of OWASP's first choice (19 MiB, 2 rounds). */
export function hashPassword(password: string): Promise<string> {
  return hash(password, { memoryCost: 19_456, timeCost: 2, parallelism: 1 });
}

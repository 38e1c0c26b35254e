export const PASSWORD_HINT = '12 to 64 characters that are hard to guess, as four words that do not belong together';

/** What a password that is being chosen wants before it is sent; how hard it is to guess is judged by the server. */
export function passwordWants(password: string): string {
  if (password.length < 12) return `Has ${password.length} characters; allowed: ${PASSWORD_HINT}`;
  return '';
}

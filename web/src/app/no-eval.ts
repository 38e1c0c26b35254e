/*
 * Zod tries whether it may compile functions at run time. The content policy
 * forbids that, and the browser would report each try: Zod is told beforehand.
 * Imported first, before any schema is made.
 */
(globalThis as { __zod_globalConfig?: { jitless?: boolean } }).__zod_globalConfig = { jitless: true };

export {};

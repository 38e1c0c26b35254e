import type { PrivateDatabase } from './database.mjs';
import type { ServerProcess } from './server.mjs';

export interface Stack {
  readonly database: PrivateDatabase;
  readonly server: ServerProcess;
  readonly url: string;
  serve(env?: Record<string, string>): Promise<ServerProcess>;
  stop(): Promise<void>;
}
export function startStack(over?: Record<string, string>, options?: { readonly binlog?: boolean }): Promise<Stack>;

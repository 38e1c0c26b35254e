export class ServerProcess {
  constructor(settings: { port: number; log: string; env: Record<string, string> });
  readonly url: string;
  start(): Promise<void>;
  stop(): Promise<void>;
  kill(): Promise<void>;
}

export class ServerProcess {
  constructor(settings: { port: number; log: string; env: Record<string, string> });
  readonly url: string;
  /** Printed where there is no clinic yet. */
  readonly foundingCode?: string;
  /** Its exit code; null while it runs. */
  readonly exitCode: number | null | undefined;
  start(): Promise<void>;
  stop(): Promise<void>;
  kill(): Promise<void>;
}

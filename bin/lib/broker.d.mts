export class PrivateBroker {
  constructor(port: number, options?: { tls?: string });
  readonly url: string;
  start(): Promise<void>;
  stop(): Promise<void>;
}

export class PrivateBroker {
  constructor(port: number);
  readonly url: string;
  start(): Promise<void>;
  stop(): Promise<void>;
}

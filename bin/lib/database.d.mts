export class PrivateDatabase {
  constructor(folder: string, port: number, options?: { readonly binlog?: boolean; readonly tls?: string });
  readonly data: string;
  readonly port: number;
  readonly socket: string;
  environment(): Record<
    | 'DIAL_GAUGE_DB_PORT'
    | 'DIAL_GAUGE_DB_USER'
    | 'DIAL_GAUGE_DB_PASSWORD'
    | 'DIAL_GAUGE_DB_NAME'
    | 'DIAL_GAUGE_DB_SCHEMA_USER'
    | 'DIAL_GAUGE_DB_SCHEMA_PASSWORD'
    | 'DIAL_GAUGE_KEY_FILE',
    string
  >;
  start(): Promise<void>;
  stop(): Promise<void>;
  kill(): Promise<void>;
  discard(): Promise<void>;
  sql(statements: string): Promise<void>;
}

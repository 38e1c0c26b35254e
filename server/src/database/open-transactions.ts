/** A connection of the driver, as far as it is looked after here. */
interface Connection {
  addCommand(command: { readonly sql?: string }): unknown;
  query(sql: string, done: (error: Error | null, rows: readonly { readonly open: number }[]) => void): unknown;
  destroy(): void;
  /** null once it was removed from its pool. */
  readonly _pool: unknown;
}

/** The driver's pool, likewise. */
export interface ConnectionPool {
  on(event: 'connection', heard: (connection: Connection & { query(sql: string): void }) => void): void;
  releaseConnection(connection: Connection): void;
}

/** Statements after which a transaction may be open. A procedure may begin one as well. */
const MAY_OPEN = /^\s*(?:begin|start|set|savepoint|xa|call|lock)\b/i;

/**
 * Sees to it that no connection with an open transaction is handed out again:
 * what the next one writes would be answered before it is committed. Whenever
 * a connection comes back on which a transaction may have been begun, the
 * database is asked; where one is open the connection is destroyed, which
 * takes the transaction back, and `found` is told.
 *
 * @returns looks after a connection that was there before
 */
export function destroyOpenTransactions(pool: ConnectionPool, found: () => void): (connection: unknown) => void {
  const suspects = new WeakSet<Connection>();
  const lookAfter = (connection: Connection) => {
    const add = connection.addCommand.bind(connection);
    connection.addCommand = (command) => {
      if (MAY_OPEN.test(command.sql ?? '')) suspects.add(connection);
      return add(command);
    };
  };
  pool.on('connection', lookAfter);
  const release = pool.releaseConnection.bind(pool);
  pool.releaseConnection = (connection) => {
    if (!suspects.has(connection) || !connection._pool) return release(connection);
    suspects.delete(connection);
    connection.query('SELECT @@in_transaction OR NOT @@autocommit AS open', (error, rows) => {
      if (!error && Number(rows[0]?.open) === 0) return release(connection);
      if (!error) found();
      connection.destroy();
    });
  };
  return (connection) => lookAfter(connection as Connection);
}

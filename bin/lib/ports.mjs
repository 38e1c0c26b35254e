import { createServer } from 'node:net';
import { Stop } from './say.mjs';

const listen = (port) =>
  new Promise((resolve, reject) => {
    const server = createServer();
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => {
      const { port: got } = server.address();
      server.close(() => resolve(got));
    });
  });

/** A loopback port nobody listens on. */
export const freePort = () => listen(0);

/** Stops with a message when a port is taken. */
export async function needPort(port, what, variable) {
  await listen(port).catch(() => {
    throw new Stop(
      `Port ${port} on 127.0.0.1 is taken, and ${what} needs it. Is Dial Gauge already running? Otherwise choose another port:\n  ${variable}=${port + 20} npm start`,
    );
  });
}

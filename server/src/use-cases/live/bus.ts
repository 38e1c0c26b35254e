import { EventEmitter } from 'node:events';
import { createClient } from 'redis';

/**
 * Carries what instruments and screens say between the servers they are
 * connected to. Nothing of it is kept: what is missed is shown a moment later,
 * and a hold is sent again until it is answered.
 */
export interface Bus {
  publish(topic: string, text: string): void;
  /** @returns how to stop hearing */
  subscribe(topic: string, heard: (text: string) => void): Promise<() => Promise<void>>;
  close(): Promise<void>;
}

/** One server alone: everybody is here. */
export class OwnBus implements Bus {
  private readonly emitter = new EventEmitter().setMaxListeners(0);

  publish(topic: string, text: string): void {
    this.emitter.emit(topic, text);
  }

  subscribe(topic: string, heard: (text: string) => void): Promise<() => Promise<void>> {
    this.emitter.on(topic, heard);
    return Promise.resolve(() => {
      this.emitter.off(topic, heard);
      return Promise.resolve();
    });
  }

  close(): Promise<void> {
    this.emitter.removeAllListeners();
    return Promise.resolve();
  }
}

/**
 * Several servers over one small broker: Debian's redis-server, publish and subscribe alone.
 *
 * @param authority that the certificate of a broker over TLS was signed by, in PEM; without it those of the system are asked
 */
export function brokerBus(url: string, failed: (error: Error) => void, authority?: string): Bus {
  const out = createClient({ url, ...(authority === undefined ? {} : { socket: { tls: true, ca: authority } }) });
  const into = out.duplicate();
  for (const client of [out, into]) {
    client.on('error', failed);
    // Nobody waits for it: readings that are typed want no broker. It is tried again until it is there.
    client.connect().catch(failed);
  }
  return {
    publish(topic, text) {
      // What cannot be sent now is stale when it could be.
      if (out.isReady) out.publish(topic, text).catch(failed);
    },
    async subscribe(topic, heard) {
      await into.subscribe(topic, heard);
      return async () => void (await into.unsubscribe(topic, heard));
    },
    async close() {
      await Promise.allSettled([out.close(), into.close()]);
    },
  };
}

import { protocolOfId, type Protocol } from '@dial-gauge/core';

/** Address of a protocol's page: `hip.internalRotation/prone` → `/library/hip/internalRotation/prone`. No dot: an address with one is a file. */
export function protocolPath(protocol: Protocol): string[] {
  const [motion = '', way = ''] = protocol.id.split('/');
  return ['/library', ...motion.split('.'), way];
}

/** The protocol at an address, or undefined. */
export function protocolAt(region: string, motion: string, way: string): Protocol | undefined {
  return protocolOfId(`${region}.${motion}/${way}`);
}

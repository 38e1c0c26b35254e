import ipaddr from 'ipaddr.js';

/** Bytes of an IPv6 address that one connection is given: whoever has it has all addresses below. */
const NETWORK_BYTES = 8;

/** Where a request comes from, as it is counted: an IPv4 address, or the /64 of an IPv6 address. */
export function networkOf(address: string | undefined): string {
  if (!address || !ipaddr.isValid(address)) return 'unknown';
  const parsed = ipaddr.process(address);
  if (parsed.kind() === 'ipv4') return parsed.toString();
  const bytes = parsed.toByteArray();
  return `${new ipaddr.IPv6(bytes.fill(0, NETWORK_BYTES)).toString()}/${NETWORK_BYTES * 8}`;
}

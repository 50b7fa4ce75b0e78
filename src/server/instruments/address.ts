import net from 'node:net';

/** Where an instrument answers. */
export interface Address {
  host: string;
  port: number;
}

/** This machine and the private networks: what is reached without leaving the house. */
const HOUSE = new net.BlockList();
for (const [from, bits] of [
  ['127.0.0.0', 8],
  ['10.0.0.0', 8],
  ['172.16.0.0', 12],
  ['192.168.0.0', 16],
  ['169.254.0.0', 16],
] as const)
  HOUSE.addSubnet(from, bits, 'ipv4');
HOUSE.addAddress('::1', 'ipv6');
HOUSE.addSubnet('fc00::', 7, 'ipv6');
HOUSE.addSubnet('fe80::', 10, 'ipv6');

/** Why an address is not gone to, as a sentence; null where it may be. Names are not resolved: they can change their mind. */
export function addressFault({ host, port }: Address): string | null {
  const family = net.isIP(host);
  if (family === 0)
    return `‘${host.slice(0, 60)}’ is no address: write it as numbers, like 192.168.1.40. Names are not looked up.`;
  if (!HOUSE.check(host, family === 4 ? 'ipv4' : 'ipv6'))
    return `${host} lies outside this house: only this machine and private networks are gone to.`;
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    return 'A port is a whole number from 1 to 65535; many instruments answer at 5025.';
  return null;
}

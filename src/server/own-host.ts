import { isIP } from 'node:net';

/** Names nobody can have made lead here from outside: without a dot, or ending as names in a house do (RFC 6762, RFC 8375, RFC 6761). */
const IN_THE_HOUSE = /^(?:[^.]+|.+\.(?:local|lan|home\.arpa|localhost|internal))$/;

/**
 * Whether a request was sent to an address of ours: the one we were told (WENDEL_URL), a number, or a name within the house. Any other
 * name may have been made to lead here by somebody's page in the same browser (DNS rebinding), which would then count as our own.
 * @example ownHost('192.168.1.5:3000') // true
 * @example ownHost('rebind.example.com') // false
 */
export function ownHost(host: string | null): boolean {
  const name = URL.parse(`http://${host ?? ''}`)?.hostname.replace(/^\[|\]$/g, '');
  if (!name) return false;
  return isIP(name) > 0 || IN_THE_HOUSE.test(name) || name === URL.parse(process.env.WENDEL_URL ?? '')?.hostname;
}

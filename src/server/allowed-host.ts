/**
 * Whether a request's Host header names this machine, or one allowed by EMBER_RAIL_HOSTS (comma-separated names). A
 * rebound name would otherwise let another site read what is on the shelf.
 */
export function allowedHost(host: string | null): boolean {
  const name = (host ?? '').replace(/:\d+$/, '');
  const more = (process.env['EMBER_RAIL_HOSTS'] ?? '').split(',').filter(Boolean);
  return ['127.0.0.1', 'localhost', '[::1]', ...more].includes(name);
}

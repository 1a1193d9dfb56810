/** Which proxies are believed, as the environment says. */

/**
 * What `TRUST_PROXY` means: a number of proxies between the caller and this server, or their addresses and networks,
 * parted by commas (`loopback`, `10.0.0.0/8`). Nothing means that there is none. @throws Error for anything else
 */
export function proxies(given: string | undefined): number | string | false {
  const said = given?.trim() ?? '';
  if (said === '' || said === '0') return false;
  if (/^\d{1,2}$/.test(said)) return Number(said);
  if (/^[\w.:/, -]+$/.test(said) && said !== 'true' && said !== 'yes') return said;
  throw new Error('TRUST_PROXY is a number of proxies, or their addresses parted by commas.');
}

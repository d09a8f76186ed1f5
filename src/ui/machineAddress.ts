/** Address of a machine's page, whatever its code is written with. */
export function machineAddress(
  code: string,
  page: '' | 'codes' | 'bus' | 'drawings' | 'history' = '',
): string {
  return `/machines/${encodeURIComponent(code)}${page === '' ? '' : `/${page}`}`;
}

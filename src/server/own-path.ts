/** Any address does: only whether one leads away from it is asked. */
const HERE = 'http://here.invalid';

/**
 * The page of ours that an address leads to, as browsers read it (tabs and line ends left out, backslashes as slashes); the first page
 * for whatever would lead to another site.
 *
 * @example ownPath('/singers/3?at=2') // '/singers/3?at=2'
 * @example ownPath('/\t/evil.example') // '/'
 */
export function ownPath(to: string): string {
  const url = URL.parse(to, HERE);
  return to.startsWith('/') && url?.origin === HERE && !url.pathname.startsWith('//') ? url.pathname + url.search + url.hash : '/';
}

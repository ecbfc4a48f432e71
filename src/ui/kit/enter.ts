/** Go on as whoever is signed in now (or nobody): everything is fetched anew, nothing of before stays in the page's memory. */
export function enter(path = '/'): void {
  location.assign(path);
}

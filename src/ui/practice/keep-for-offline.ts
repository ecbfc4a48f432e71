import { loadPiano } from '../../audio/follow-along';
import { prepareToFollow } from '../../audio/follow-song';
import { prepareInput } from '../../audio/input';
import { loadSinger } from '../../audio/simulated';

/** What the page loads by itself, and must have without a network: its own files, the piano, the microphone's worklet. */
const NEEDED = /\/_next\/static\/|\/piano\/|\.svg$/;
const WORKLETS = ['/worklets/capture.js'];
/** The worker takes over a page that is open already within moments. */
const TAKES_OVER_MS = 5000;

/** Until the service worker answers for this page: what workers fetch goes through it, and is kept, from then on. */
const inCharge = () =>
  navigator.serviceWorker.controller
    ? Promise.resolve()
    : new Promise<void>((resolve) => {
        navigator.serviceWorker.addEventListener('controllerchange', () => resolve(), { once: true });
        setTimeout(resolve, TAKES_OVER_MS);
      });

/**
 * Have the page look after itself without a network: all that an exercise or a song plays, listens and sings with is fetched now, and kept for
 * then. `more`: further addresses to keep.
 */
export async function keepForOffline(more: readonly string[]): Promise<void> {
  if (!('serviceWorker' in navigator)) return;
  try {
    await navigator.serviceWorker.register('/sw.js', { scope: '/p/' });
    const { active } = await navigator.serviceWorker.ready;
    const keep = () => {
      const loaded = performance.getEntriesByType('resource').map((r) => r.name);
      active?.postMessage({ keep: [location.href, ...loaded.filter((url) => NEEDED.test(url)), ...WORKLETS, ...more] });
    };
    // The page itself at once; what sounds and listens follows.
    keep();
    await inCharge();
    prepareInput(false);
    prepareToFollow();
    await Promise.allSettled([loadPiano(), loadSinger()]);
    keep();
  } catch {
    // Without it the page needs the network; nothing else changes.
  }
}

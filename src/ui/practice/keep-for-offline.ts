import { prepareToFollow } from '../../audio/follow-song';
import { prepareInput } from '../../audio/input';
import { PIANO_SAMPLES } from '../../audio/piano-samples';
import { loadSinger } from '../../audio/simulated';

/** What the page loads by itself and must have without a network; and what it loads only when it plays and listens: the piano, the microphone's worklet. */
const NEEDED = /\/_next\/static\/|\.svg$/;
const SOUNDS = [...PIANO_SAMPLES.map(({ path }) => path), '/worklets/capture.js'];
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
    const keep = (also: readonly string[]) => {
      const loaded = performance.getEntriesByType('resource').map((r) => r.name);
      active?.postMessage({ keep: [location.href, ...loaded.filter((url) => NEEDED.test(url)), ...also] });
    };
    // The page itself at once; what sounds and listens follows.
    keep(more);
    await inCharge();
    prepareInput(false);
    prepareToFollow();
    // The piano is put together by this, and decoded only when a hand comes.
    await Promise.allSettled([import('tone'), loadSinger()]);
    keep(SOUNDS);
  } catch {
    // Without it the page needs the network; nothing else changes.
  }
}

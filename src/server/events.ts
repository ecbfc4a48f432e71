import type { Change } from '../contract/answers';
import { onChange } from '../data/events';
import { mustBe } from './let-in';
import { beginOne } from './limits';

const encoder = new TextEncoder();

/** Streams that are open in this process: a server that is told to go waits for its answers to end, so they end then. */
const open = new Set<() => void>();
let listening = false;
function endWithServer(end: () => void): void {
  open.add(end);
  if (listening) return;
  listening = true;
  process.once('SIGTERM', () => open.forEach((each) => each()));
}

/** Streams of one account at once: each browser holds one, whatever number of pages it has open. */
const STREAMS_AT_ONCE = 8;
/** A line that says nothing, so that proxies keep the connection, and a browser that is gone is found out. */
const STILL_HERE_MS = 20_000;
/** A stream ends so late at the latest; the browser asks for another by itself, and is asked anew who it is. */
const LONGEST_MS = 600_000;
/** How long a browser waits before it asks anew. */
const RETRY_MS = 1000;

/** What happens in the studio of whoever asks, as server-sent events (WHATWG HTML, 9.2), until they go. @throws Refusal (too-often). */
export async function changesOfStudio(): Promise<Response> {
  const { studioId, userId } = await mustBe('reader');
  const leave = beginOne(STREAMS_AT_ONCE, `changes ${userId}`);
  let end = () => {};
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const say = (text: string) => controller.enqueue(encoder.encode(text));
      const stop = onChange(studioId, (change: Change) => say(`data: ${JSON.stringify(change)}\n\n`));
      const still = setInterval(() => say(':\n\n'), STILL_HERE_MS);
      const longest = setTimeout(() => over(), LONGEST_MS);
      const over = () => {
        end();
        controller.close();
      };
      end = () => {
        end = () => {};
        stop();
        leave();
        clearInterval(still);
        clearTimeout(longest);
        open.delete(over);
      };
      endWithServer(over);
      say(`retry: ${RETRY_MS}\n\n`);
    },
    cancel: () => end(),
  });
  return new Response(stream, {
    headers: {
      'content-type': 'text/event-stream',
      // A proxy that packs or gathers would hold back what is told.
      'cache-control': 'private, no-store, no-transform',
      'x-accel-buffering': 'no',
    },
  });
}

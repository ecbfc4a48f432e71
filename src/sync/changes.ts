import type { Change } from '../contract/answers';
import { addressOf } from './ask';

// What happens in the studio, told to every page of a browser: one page holds the stream (a browser keeps six connections to a server,
// and a coach many pages), the others hear it from that one.

const NAME = 'wendel-changes';
const listeners = new Set<(change: Change) => void>();
let between: BroadcastChannel | undefined;

const tell = (change: Change) => listeners.forEach((listener) => listener(change));

const OPEN_AGAIN_MS = 5000;

function open(channel: BroadcastChannel): void {
  const stream = new EventSource(addressOf('GET /api/changes', {}));
  stream.onmessage = ({ data }: MessageEvent<string>) => {
    const change = JSON.parse(data) as Change;
    tell(change);
    channel.postMessage(change);
  };
  // The browser opens a stream that broke by itself, but not one that was refused (the database away, too many).
  stream.onerror = () => {
    if (stream.readyState === EventSource.CLOSED) setTimeout(() => open(channel), OPEN_AGAIN_MS);
  };
}

/** Hold the stream until this page goes; another page that waits for the lock takes it up then. */
const holdStream = (channel: BroadcastChannel) =>
  navigator.locks.request(NAME, () => {
    open(channel);
    return new Promise<never>(() => {});
  });

/** Be called with each change of the studio, until the function that comes back is called. */
export function onChange(listener: (change: Change) => void): () => void {
  if (!between) {
    between = new BroadcastChannel(NAME);
    between.onmessage = ({ data }: MessageEvent<Change>) => tell(data);
    void holdStream(between);
  }
  listeners.add(listener);
  return () => listeners.delete(listener);
}

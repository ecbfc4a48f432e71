import type { Said } from '../core/words/said';
import { saidOf } from '../core/words/said-error';
import { Away, Refused } from './answer';

/** What waits in this browser, and why, for whoever shows it. */
export interface LaneState {
  waiting: number;
  /** Null while all is well. */
  trouble: Said | null;
}

const FIRST_RETRY_MS = 1000;
const LONGEST_RETRY_MS = 20_000;
export const NOTHING_WAITS: LaneState = { waiting: 0, trouble: null };

export interface Lane {
  /** Send what waits, now. */
  flush(): Promise<void>;
  /** Send what waits when the hand has rested for so long. */
  flushIn(restMs: number): void;
  state(): LaneState;
  watch(watcher: () => void): () => void;
}

/**
 * One sender of things that are kept here until the server has them: one after another, one browser tab at a time (a lock by `name`),
 * again by itself on trouble, soon at first. `pending` reads what waits, in its order; `send` brings one to the server and forgets it;
 * what is refused is put aside by `refuse` and holds up no other; one that the server stumbles over waits while the others go.
 */
export function lane<T extends { id: string }>({
  name,
  pending,
  send,
  refuse,
}: {
  name: string;
  pending(): T[] | Promise<T[]>;
  send(item: T): Promise<void>;
  refuse(item: T, why: Said): void | Promise<void>;
}): Lane {
  let state = NOTHING_WAITS;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let pause = FIRST_RETRY_MS;
  const watchers = new Set<() => void>();

  async function sendAll(): Promise<Said | null> {
    let trouble: Said | null = null;
    const stumbled = new Set<string>();
    const next = async () => (await pending()).find(({ id }) => !stumbled.has(id));
    for (let item = await next(); item; item = await next()) {
      try {
        await send(item);
        pause = FIRST_RETRY_MS;
      } catch (error) {
        if (error instanceof Refused) {
          await refuse(item, error.says);
          continue;
        }
        trouble = saidOf(error);
        if (error instanceof Away) return trouble;
        stumbled.add(item.id);
      }
    }
    return trouble;
  }

  async function flush(): Promise<void> {
    clearTimeout(timer);
    await navigator.locks.request(name, async () => {
      const trouble = await sendAll();
      state = { waiting: (await pending()).length, trouble };
      watchers.forEach((w) => w());
    });
    if (state.waiting === 0) return;
    flushIn(pause);
    pause = Math.min(LONGEST_RETRY_MS, 2 * pause);
  }

  function flushIn(restMs: number): void {
    clearTimeout(timer);
    timer = setTimeout(() => void flush(), restMs);
  }

  return {
    flush,
    flushIn,
    state: () => state,
    watch(watcher) {
      watchers.add(watcher);
      return () => watchers.delete(watcher);
    },
  };
}

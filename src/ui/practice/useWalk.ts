import { useRef, useState } from 'react';
import { useFollowAlong } from '../../audio/follow-along';
import type { Accompaniment } from '../../core/exercise/follow-along';
import type { KeyInTime } from '../../core/exercise/render';
import { goneOn, goneTo, hasTimeFor, Walk, walkOf } from '../../core/exercise/round';

/** A key that was sung to its end, and when it began: milliseconds of `performance.now`, pauses before it not counted. */
export interface SungKey {
  tonic: number;
  beganMs: number;
}

/** The key that begins: where it is among the keys, when it sounds, and how long the singer has paused until then. */
export interface Begun {
  key: KeyInTime;
  at: number;
  /** Keys begun so far, this one among them; and whether none follows. */
  count: number;
  last: boolean;
  beginsMs: number;
  pausedMs: number;
}

interface Going {
  walk: Walk;
  /** The key that sounds; null while nothing does. */
  now: Begun | null;
  sung: SungKey[];
  playedS: number;
  pausedMs: number;
  /** Since when it is paused. */
  pausedAt: number | null;
}

/** What is shown of it. */
export interface Shown extends Walk {
  state: 'playing' | 'paused';
  /** Keys begun so far. */
  count: number;
}

/** A key whose last note ends within this is over, seconds. */
const NEARLY_S = 0.15;
const endOf = ({ notes }: KeyInTime) => notes[notes.length - 1]?.endS ?? 0;
const now = () => performance.now();

/**
 * A follow-along that goes on by itself through its keys until the minutes are over, and does what the singer asks of it: waits,
 * sings a key once more or stays with it, goes on to the next or to any other.
 */
export function useWalk({
  id,
  render,
  minutes,
  accompaniment,
  onKey,
  onPause,
  onOver,
  onFail,
}: {
  id: string;
  render: (tonic: number) => KeyInTime;
  minutes: number;
  accompaniment: Accompaniment;
  onKey: (begun: Begun) => void;
  onPause: (on: boolean) => void;
  /** The minutes are over. */
  onOver: () => void;
  /** The piano can't be had: nothing sounds. */
  onFail: () => void;
}) {
  const along = useFollowAlong();
  const going = useRef<Going | null>(null);
  const [shown, setShown] = useState<Shown | null>(null);
  const count = useRef(0);
  const show = () => {
    const { walk, pausedAt } = going.current!;
    setShown({ ...walk, state: pausedAt === null ? 'playing' : 'paused', count: count.current });
  };

  /** The key that sounds ends here, played through or cut; whether its notes were over. */
  const end = (g: Going, cutMs: number | null): boolean => {
    if (!g.now) return false;
    const { key, beginsMs, pausedMs } = g.now;
    const lastedS = cutMs === null ? key.totalS : Math.min(key.totalS, Math.max(0, (cutMs - beginsMs) / 1000));
    const whole = lastedS >= endOf(key) - NEARLY_S;
    if (whole) g.sung.push({ tonic: key.tonic, beganMs: beginsMs - pausedMs });
    g.playedS += lastedS;
    g.now = null;
    return whole;
  };
  const begin = () => {
    const next = (): KeyInTime | null => {
      const g = going.current!;
      if (g.now) {
        const keyS = g.now.key.totalS;
        end(g, null);
        if (!hasTimeFor(keyS, g.playedS, minutes)) return null;
        g.walk = goneOn(g.walk);
      }
      return render(g.walk.keys[g.walk.at]);
    };
    const begun = (key: KeyInTime, beginsMs: number) => {
      const g = going.current!;
      const last = !hasTimeFor(key.totalS, g.playedS + key.totalS, minutes);
      g.now = { key, at: g.walk.at, count: ++count.current, last, beginsMs, pausedMs: g.pausedMs };
      onKey(g.now);
      show();
    };
    void along.walk(id, next, { onKey: begun, onEnd: onOver, onFail: fail, onCut: pause, accompaniment });
  };
  const fail = () => {
    going.current = null;
    setShown(null);
    onFail();
  };
  /** Wait; then the same key from its chord, or the next where this one was over. */
  const pause = () => {
    const g = going.current!;
    along.stop();
    g.pausedAt = now();
    if (end(g, g.pausedAt)) g.walk = goneOn(g.walk);
    onPause(true);
    show();
  };
  const goOn = (g: Going) => {
    if (g.pausedAt !== null) {
      g.pausedMs += now() - g.pausedAt;
      g.pausedAt = null;
      onPause(false);
    }
    show();
    begin();
  };

  return {
    shown,
    problem: along.problem,
    play(keys: readonly number[]) {
      count.current = 0;
      going.current = { walk: walkOf(keys), now: null, sung: [], playedS: 0, pausedMs: 0, pausedAt: null };
      show();
      begin();
    },
    pause,
    goOn: () => goOn(going.current!),
    stay(how: 'once' | 'on') {
      const g = going.current!;
      g.walk = { ...g.walk, stays: g.walk.stays === how ? null : how };
      show();
    },
    /** Another key at once: the next on the way, or one that was chosen. */
    go(to: 'next' | number) {
      const g = going.current!;
      along.stop();
      end(g, now());
      g.walk = to === 'next' ? goneOn({ ...g.walk, stays: null }) : goneTo(g.walk, to);
      goOn(g);
    },
    /** End it: the keys that were sung to their ends, and seconds played. */
    stop(): { sung: SungKey[]; playedS: number } {
      const g = going.current!;
      along.stop();
      end(g, g.pausedAt ?? now());
      going.current = null;
      setShown(null);
      return { sung: g.sung, playedS: g.playedS };
    },
  };
}

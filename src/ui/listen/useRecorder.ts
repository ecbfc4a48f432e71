import { Said, texts } from '../../core/words/said';
import { useCallback, useEffect, useRef, useState } from 'react';
import { Refused } from '../../sync/answer';
import { Input, InputEvents, Live, prepareInput, Recording } from '../../audio/input';
import type { Against, JudgedTake } from '../../audio/take-messages';
import { forgetKept, TakeIdentity, updateKept } from '../../sync/kept-takes';
import { presentAccount } from '../../sync/account';
import { onSent, sendTake, takesLane } from '../../sync/takes';
import type { CoachMark } from '../../core/map/types';
import type { TimbreAxis } from '../../core/take/timbre';
import { HOP_S } from '../../core/voice/types';
import { addFrames, emptyLive, LiveStore } from '../take/LiveTrace';
import type { MeterStore } from './LevelMeter';
import { saidOf } from '../../core/words/said-error';

const STORAGE_FULL = texts('This device’s storage is full: the take is held in this page only until it is sent. Free some space soon.');
const KEEPS_NOTHING = texts('This browser keeps nothing (a private window?): the take is held in this page only until it is sent.');

/** A recording that has ended, with what was marked while it ran, and what was heard in it at once (not in a file). */
export interface Finished {
  take: TakeIdentity;
  recording: Recording;
  heard: Promise<JudgedTake> | null;
  marks: CoachMark[];
}

/** A finished take that isn't on the server yet. `waits`: it will go there by itself. */
export interface Unsent extends Finished {
  waits: boolean;
  why: Said;
}

/** However long it takes to hear a take, sending it doesn't wait longer than this. */
const LONGEST_HEARING_MS = 8000;
const pause = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));
/** When what was just put on the page has been painted; never in a page in the background. */
const shown = () => new Promise<void>((resolve) => requestAnimationFrame(() => requestAnimationFrame(() => resolve())));

/** Sung frames before a mark's direction is looked for this far back. */
const BACK_FRAMES = 20;

/**
 * Recording takes one after another from one input. Each is kept in the browser as it is recorded; `deliver` sends it, and
 * what can't be sent now goes later by itself. `onFrames` hears the live frames of the take under way with the track so far;
 * `onLost` ends the take when the device has gone away. `heard`: what is found in a take matters, not only how it sounds.
 */
export function useRecorder(
  axis: TimbreAxis | null,
  onFrames: (live: Live, track: LiveStore) => void,
  onLost: () => Promise<void>,
  { heard: isHeard = true }: { heard?: boolean } = {},
) {
  const [state, setState] = useState<'idle' | 'opening' | 'recording' | 'ending'>('idle');
  const [unsent, setUnsent] = useState<Unsent[]>([]);
  const [warning, setWarning] = useState<string | null>(null);
  const input = useRef<Input | null>(null);
  const current = useRef<{ take: TakeIdentity; marks: CoachMark[] } | null>(null);
  const kept = useRef(true);
  const live = useRef<LiveStore>(emptyLive(''));
  const meter = useRef<MeterStore>({ peak: 0, levelDb: -Infinity });
  const heard = useRef({ onFrames, onLost });
  useEffect(() => {
    heard.current = { onFrames, onLost };
  });

  const close = useCallback(() => {
    input.current?.close();
    input.current = null;
    current.current = null;
  }, []);
  useEffect(() => {
    prepareInput(isHeard);
    return close;
  }, [close, isHeard]);

  // A take that the outbox has sent is no longer anybody's worry here.
  useEffect(() => onSent((id) => setUnsent((all) => all.filter((u) => u.take.id !== id))), []);

  // What is in this page only would be lost with it: let the browser ask.
  const atRisk = state === 'recording' || state === 'ending' || unsent.some((u) => !u.waits);
  useEffect(() => {
    if (!atRisk) return;
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    addEventListener('beforeunload', ask);
    return () => removeEventListener('beforeunload', ask);
  }, [atRisk]);

  /** Begin a take, opening the input if none is open. @throws InputError in words. */
  const start = useCallback(
    async (asked: TakeIdentity, open: (events: InputEvents) => Promise<Input>) => {
      const take = { ...asked, account: presentAccount() };
      setWarning(null);
      live.current = emptyLive(take.vowel, live.current);
      kept.current = true;
      setState('opening');
      try {
        input.current ??= await open({
          onLive(event) {
            meter.current.peak = Math.max(meter.current.peak, event.peak);
            meter.current.levelDb = event.levelDb;
            if (!current.current) return;
            addFrames(live.current, event.frames);
            heard.current.onFrames(event, live.current);
          },
          onLost: () => void heard.current.onLost().then(close),
          onUnkept(full) {
            kept.current = false;
            setWarning(full ? STORAGE_FULL : KEEPS_NOTHING);
          },
        });
      } catch (error) {
        close();
        setState('idle');
        throw error;
      }
      void navigator.storage?.persist?.();
      current.current = { take, marks: [] };
      input.current.start(take, axis);
      setState('recording');
    },
    [axis, close],
  );

  /** End the take under way, judged `against` what was asked: its sound and marks; null when there is none. */
  const stop = useCallback(async (against: Against | null = null): Promise<Finished | null> => {
    const ending = current.current;
    if (!ending || !input.current) return null;
    current.current = null;
    setState('ending');
    const { heard, ...recording } = await input.current.stop(against);
    setState('idle');
    return { ...ending, recording, heard };
  }, []);

  /** Nothing is taken in or heard while a take is held; it goes on then as if no time had passed. */
  const hold = useCallback((on: boolean) => input.current?.hold(on), []);

  /** Give the take under way up. */
  const drop = useCallback(() => {
    if (!current.current) return;
    current.current = null;
    input.current?.drop();
    setState('idle');
  }, []);

  /** Send a finished take. @throws Error in words; the take is then among `unsent` (not a file that was refused). */
  const deliver = useCallback(async (finished: Finished) => {
    setUnsent((all) => all.filter((u) => u.take.id !== finished.take.id));
    // The take is kept here already; the processor is for hearing it and showing what was heard first.
    await Promise.race([finished.heard, pause(LONGEST_HEARING_MS)]);
    await Promise.race([shown(), pause(400)]);
    try {
      await sendTake(finished.take, finished.recording.wav, finished.marks);
    } catch (error) {
      const refused = error instanceof Refused;
      // A file that isn't accepted is still where it came from.
      if (refused && finished.take.source === 'file') {
        await forgetKept(finished.take.id).catch(() => {});
        throw error;
      }
      if (refused) await updateKept(finished.take.id, { refused: error.says }).catch(() => {});
      const waits = kept.current && !refused;
      const why = saidOf(error);
      setUnsent((all) => [...all, { ...finished, waits, why }]);
      if (waits) void takesLane.flush();
      throw error;
    }
  }, []);

  /** Mark this moment at the pitch that is sung: the mark, or null when nothing is. */
  const mark = useCallback((by: CoachMark['by']): CoachMark | null => {
    const { midi } = live.current;
    let at = midi.length - 1;
    while (at > 0 && !(midi[at] > 0)) at--;
    if (!current.current || !(midi[at] > 0)) return null;
    const before = midi[Math.max(0, at - BACK_FRAMES)] || midi[at];
    const made: CoachMark = {
      id: crypto.randomUUID(),
      timeS: at * HOP_S,
      midi: Math.round(midi[at]),
      direction: midi[at] >= before ? 'up' : 'down',
      verdict: 'add',
      by,
    };
    const { take, marks } = current.current;
    marks.push(made);
    void updateKept(take.id, { marks }).catch(() => {});
    return made;
  }, []);

  return { state, warning, unsent, live, meter, start, stop, hold, drop, close, deliver, mark };
}

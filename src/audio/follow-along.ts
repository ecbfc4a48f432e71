import { useCallback, useEffect, useRef, useState } from 'react';
import { Accompaniment, pianoNotes } from '../core/exercise/follow-along';
import type { KeyInTime } from '../core/exercise/render';
import { noteName } from '../core/music/pitch';
import { said, Said } from '../core/words/said';
import { agenda, type Agenda } from './agenda';
import { decodedPiano, NO_PIANO } from './piano-samples';

type Tone = typeof import('tone');
type Sampler = import('tone').Sampler;
interface Piano {
  tone: Tone;
  sampler: Sampler;
  /** A piano of its own for what is played once through: faded and thrown away, it takes with it what would ring to its written end. */
  another: () => Sampler;
  /** Counts in: a click of no pitch. */
  click: import('tone').NoiseSynth;
}

/** The clock looks this far ahead, and the first note comes this much later: together well under what a hand notices. */
const LOOK_AHEAD_S = 0.06;
const LEAD_S = 0.02;
/** A device that has not begun to sound after this long doesn't (none is there, or another program holds it); even a busy one needs well under 1 s. */
const SILENT_S = 10;

let loading: Promise<Piano> | undefined;

/** Decode the piano, and put it together when nothing else is to be done; it stays silent until the press. */
function makeReady(): void {
  void decodedPiano().catch(() => undefined);
  const together = () => void loadPiano().catch(() => undefined);
  // A page that draws without rest never idles, and not every browser tells when it does.
  if ('requestIdleCallback' in window) requestIdleCallback(together, { timeout: 800 });
  else setTimeout(together, 300);
}

/** What a hand does before it presses anything: a page is left alone until then. */
const SIGNS_OF_A_HAND = ['pointermove', 'pointerdown', 'keydown'];

/**
 * Have what sounds ready before it is asked for, so that the first press sounds at once: on a page that may play from the first sign of a hand
 * (it takes 3 s of a processor, on threads of the browser's own, for nothing where nobody plays). Returns what ends waiting for the sign.
 */
function readyWhenMeant(): () => void {
  const waiting = new AbortController();
  let at = '';
  const begin = (sign: Event) => {
    if (sign instanceof PointerEvent && sign.type === 'pointermove') {
      // Where something else comes to lie under a pointer that rests, browsers tell of a move that was none.
      const before = at;
      at = `${sign.screenX} ${sign.screenY}`;
      if (before === '' || before === at) return;
    }
    waiting.abort();
    makeReady();
  };
  for (const sign of SIGNS_OF_A_HAND) addEventListener(sign, begin, { signal: waiting.signal, capture: true, passive: true });
  return () => waiting.abort();
}

/** The piano with its sounds, loaded once. @throws where they can't be fetched. */
export function loadPiano(): Promise<Piano> {
  loading ??= Promise.all([import('tone'), decodedPiano()]).then(([tone, sounds]) => {
    tone.getContext().lookAhead = LOOK_AHEAD_S;
    const urls = Object.fromEntries(sounds.map(({ name, buffer }) => [name, buffer]));
    const another = () => new tone.Sampler({ urls, release: 0.4 }).toDestination();
    const sampler = another();
    const click = new tone.NoiseSynth({ volume: -12, envelope: { attack: 0.001, decay: 0.03, sustain: 0 } }).toDestination();
    return { tone, sampler, another, click };
  });
  loading.catch(() => (loading = undefined));
  return loading;
}

/** As quick as a damper. */
const FADE_S = 0.1;
/** Damp all that a piano still sounds, and throw it away. */
function damp(sampler: Sampler): void {
  sampler.volume.rampTo(-Infinity, FADE_S);
  setTimeout(() => sampler.dispose(), 3 * FADE_S * 1000);
}

/** Wake the device's sound. @throws where it stays silent: waking neither ends nor fails on a device that has no sound to give. */
export async function wake(tone: Tone): Promise<void> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const silent = new Promise<never>((_, fail) => {
    timer = setTimeout(() => fail(new Error('silent')), SILENT_S * 1000);
  });
  try {
    await Promise.race([tone.start(), silent]);
  } finally {
    clearTimeout(timer);
  }
}

/** Which exercise sounds, and in which of its keys. */
export interface Sounding {
  id: string;
  key: number;
}

/** The moment of `performance.now` at which a time of the audio clock is heard. */
const heardAt = (tone: Tone, time: number) => performance.now() + (time - tone.immediate()) * 1000;

/** How what sounds may end, other than by `stop`. */
interface Ends {
  /** It was played through. */
  onEnd?: () => void;
  /** The piano can't be had; `problem` says why. */
  onFail?: () => void;
  /** The device took the sound away in the middle, for a call or another program; `problem` says so. */
  onCut?: () => void;
}

interface Walking extends Ends {
  /** Told of each key shortly before it sounds, and of the moment (of `performance.now`) at which it does. */
  onKey?: (key: KeyInTime, beginsMs: number) => void;
  accompaniment?: Accompaniment;
}

/**
 * Play an exercise through its keys on the sampled piano: the new key's chord, the pattern, a breath; then `onEnd`, unless stopped.
 *
 * @param certain it will play, and nothing may be in the way then: the piano is made ready with the page, not when a hand comes
 */
export function useFollowAlong(certain = false) {
  const [sounding, setSounding] = useState<Sounding | null>(null);
  const [problem, setProblem] = useState<Said | null>(null);
  /** What sounds now. */
  const playing = useRef<Sampler>(undefined);
  const timers = useRef(new Set<ReturnType<typeof setTimeout>>());

  /** How often it was stopped: what was begun before the last of them, and waited for the piano, doesn't sound any more. */
  const stops = useRef(0);
  /** Ends looking at the audio clock, and listening for a device that takes the sound away. */
  const unwatch = useRef<() => void>(undefined);

  const stop = useCallback(() => {
    stops.current++;
    setSounding(null);
    timers.current.forEach(clearTimeout);
    timers.current.clear();
    unwatch.current?.();
    if (playing.current) damp(playing.current);
    playing.current = undefined;
  }, []);
  /** Do something when a time of the audio clock is heard; on a page that isn't seen as well, where nothing is drawn. */
  const when = useCallback((heardMs: number, work: () => void) => {
    const timer = setTimeout(() => {
      timers.current.delete(timer);
      work();
    }, heardMs - performance.now());
    timers.current.add(timer);
  }, []);
  useEffect(() => (certain ? makeReady() : readyWhenMeant()), [certain]);
  useEffect(() => stop, [stop]);

  /** Have sounds put on the clock from a moment on (`fill` is told how to say when they are over). */
  const run = useCallback(
    async (
      id: string,
      fill: (piano: Piano, at: Agenda['at'], beginsS: number, over: (time: number) => void) => void,
      { onEnd, onFail, onCut }: Ends,
    ) => {
      stop();
      const begun = stops.current;
      const silent = (why: Said, then?: () => void) => {
        if (begun !== stops.current) return;
        stop();
        setProblem(why);
        then?.();
      };
      setProblem(null);
      setSounding({ id, key: 0 });
      let piano: Piano;
      try {
        piano = await loadPiano();
      } catch {
        return silent(NO_PIANO, onFail);
      }
      const { tone } = piano;
      try {
        await wake(tone);
      } catch {
        return silent(
          said('This device makes no sound: see that it has a loudspeaker or headphones and that no other program holds it.'),
          onFail,
        );
      }
      if (begun !== stops.current) return;
      const context = tone.getContext();
      const watch = () => {
        if (context.state !== 'running') silent(said('This device took the sound away. Go on when it is free again.'), onCut);
      };
      // Not the package's own count of beats, which leaves out the first of them (or another) where it falls between two looks at the clock.
      const { at, doUntil } = agenda();
      const look = () => doUntil(tone.now());
      context.on('statechange', watch);
      context.on('tick', look);
      unwatch.current = () => {
        context.off('statechange', watch);
        context.off('tick', look);
      };
      // It may have been taken away again before anybody watched.
      watch();
      if (begun !== stops.current) return;
      fill(piano, at, tone.immediate() + LEAD_S, (time) =>
        when(heardAt(tone, time), () => {
          stop();
          onEnd?.();
        }),
      );
      look();
    },
    [stop, when],
  );

  /** Play key after key, each asked for when the one before is over; `null` ends it. */
  const walk = useCallback(
    (id: string, next: () => KeyInTime | null, { onKey, accompaniment, ...ends }: Walking = {}) =>
      run(
        id,
        ({ tone, another }, at, beginsS, over) => {
          const sampler = another();
          playing.current = sampler;
          let count = 0;
          const go = (time: number) => {
            const key = next();
            if (!key) return over(time);
            const n = count++;
            const beginsMs = heardAt(tone, time);
            onKey?.(key, beginsMs);
            when(beginsMs, () => setSounding({ id, key: n }));
            for (const { midi, startS, endS, loudness } of pianoNotes([key], 0, accompaniment))
              at(time + startS, (then) => sampler.triggerAttackRelease(noteName(midi), endS - startS, then, loudness));
            at(time + key.totalS, go);
          };
          at(beginsS, go);
        },
        ends,
      ),
    [run, when],
  );

  const play = useCallback(
    (id: string, keys: readonly KeyInTime[], onEnd?: () => void) => {
      const left = keys.values();
      return walk(id, () => left.next().value ?? null, { onEnd });
    },
    [walk],
  );

  /** Count `beats` in at a tempo in crotchets a minute, without a pitch; then `onEnd`. */
  const countIn = useCallback(
    (id: string, beats: number, tempo: number, onEnd: () => void) =>
      run(
        id,
        ({ click }, at, beginsS, over) => {
          const beatS = 60 / tempo;
          for (let beat = 0; beat < beats; beat++)
            at(beginsS + beat * beatS, (time) => click.triggerAttackRelease(0.03, time, beat === 0 ? 1 : 0.6));
          at(beginsS + beats * beatS, over);
        },
        { onEnd },
      ),
    [run],
  );

  return { sounding, problem, play, walk, countIn, stop };
}

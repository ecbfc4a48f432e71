import { useCallback, useEffect, useRef, useState } from 'react';
import { pianoNotes } from '../core/exercise/follow-along';
import type { KeyInTime } from '../core/exercise/render';
import { noteName } from '../core/music/pitch';
import { decodedPiano } from './piano-samples';

type Tone = typeof import('tone');
interface Piano {
  tone: Tone;
  sampler: import('tone').Sampler;
  /** Counts in: a click of no pitch. */
  click: import('tone').NoiseSynth;
}

/** The clock looks this far ahead, and the first note comes this much later: together well under what a hand notices. */
const LOOK_AHEAD_S = 0.06;
const LEAD_S = 0.02;

let loading: Promise<Piano> | undefined;

/**
 * Have what sounds ready before it is asked for, so that the first press sounds at once: a page that plays has it decoded from its
 * beginning, and the piano put together when nothing else is to be done. It stays silent until the press.
 */
function makeReady(): void {
  void decodedPiano().catch(() => undefined);
  const together = () => void loadPiano().catch(() => undefined);
  // A page that draws without rest never idles, and not every browser tells when it does.
  if ('requestIdleCallback' in window) requestIdleCallback(together, { timeout: 800 });
  else setTimeout(together, 300);
}

/** The piano with its sounds, loaded once. @throws where they can't be fetched. */
export function loadPiano(): Promise<Piano> {
  loading ??= Promise.all([import('tone'), decodedPiano()]).then(([tone, sounds]) => {
    tone.getContext().lookAhead = LOOK_AHEAD_S;
    const urls = Object.fromEntries(sounds.map(({ name, buffer }) => [name, buffer]));
    const sampler = new tone.Sampler({ urls, release: 0.4 }).toDestination();
    const click = new tone.NoiseSynth({ volume: -12, envelope: { attack: 0.001, decay: 0.03, sustain: 0 } }).toDestination();
    return { tone, sampler, click };
  });
  loading.catch(() => (loading = undefined));
  return loading;
}

/** Which exercise sounds, and in which of its keys. */
export interface Sounding {
  id: string;
  key: number;
}

/** Play an exercise through its keys on the sampled piano: the new key's chord, the pattern, a breath; then `onEnd`, unless stopped. */
export function useFollowAlong() {
  const [sounding, setSounding] = useState<Sounding | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const piano = useRef<Piano | null>(null);

  const stop = useCallback(() => {
    setSounding(null);
    if (!piano.current) return;
    const { tone, sampler } = piano.current;
    tone.getTransport().stop().cancel(0);
    tone.getDraw().cancel(0);
    sampler.releaseAll();
  }, []);
  useEffect(makeReady, []);
  useEffect(() => stop, [stop]);

  /** Put sounds on the clock (`fill` answers how long they last, seconds) and start it. */
  const run = useCallback(
    async (id: string, fill: (piano: Piano) => number, onEnd?: () => void) => {
      stop();
      setProblem(null);
      setSounding({ id, key: 0 });
      try {
        piano.current = await loadPiano();
      } catch {
        setSounding(null);
        return setProblem('The piano’s sounds could not be loaded: check that Wendel is running and try again.');
      }
      const { tone } = piano.current;
      await tone.start();
      const transport = tone.getTransport();
      const lastsS = fill(piano.current);
      transport.schedule(
        (time) =>
          tone.getDraw().schedule(() => {
            stop();
            onEnd?.();
          }, time),
        lastsS,
      );
      transport.start(`+${LEAD_S}`, 0);
    },
    [stop],
  );

  const play = useCallback(
    (id: string, keys: KeyInTime[], onEnd?: () => void) =>
      run(
        id,
        ({ tone, sampler }) => {
          const transport = tone.getTransport();
          for (const { midi, startS, endS, loudness } of pianoNotes(keys))
            transport.schedule((time) => sampler.triggerAttackRelease(noteName(midi), endS - startS, time, loudness), startS);
          let at = 0;
          keys.forEach((key, k) => {
            transport.schedule((time) => tone.getDraw().schedule(() => setSounding({ id, key: k }), time), at);
            at += key.totalS;
          });
          return at;
        },
        onEnd,
      ),
    [run],
  );

  /** Count `beats` in at a tempo in crotchets a minute, without a pitch; then `onEnd`. */
  const countIn = useCallback(
    (id: string, beats: number, tempo: number, onEnd: () => void) =>
      run(
        id,
        ({ tone, click }) => {
          const beatS = 60 / tempo;
          for (let beat = 0; beat < beats; beat++)
            tone.getTransport().schedule((time) => click.triggerAttackRelease(0.03, time, beat === 0 ? 1 : 0.6), beat * beatS);
          return beats * beatS;
        },
        onEnd,
      ),
    [run],
  );

  return { sounding, problem, play, countIn, stop };
}

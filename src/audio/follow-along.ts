import { useCallback, useEffect, useRef, useState } from 'react';
import type { KeyInTime } from '../core/exercise/render';
import { noteName } from '../core/music/pitch';

type Tone = typeof import('tone');
interface Piano {
  tone: Tone;
  sampler: import('tone').Sampler;
}

/** Every third semitone is sampled; the sampler fills in between. Files are laid out by bin/lib/build.mjs. */
const SAMPLED = [2, 3, 4, 5, 6].flatMap((octave) => ['C', 'D#', 'F#', 'A'].map((letter) => `${letter}${octave}`));
const CHORD_LOUDNESS = 0.45;
const NOTE_LOUDNESS = 0.8;
const LEAD_S = 0.15;

let loading: Promise<Piano> | undefined;

function loadPiano(): Promise<Piano> {
  loading ??= import('tone').then(async (tone) => {
    const urls = Object.fromEntries(SAMPLED.map((name) => [name, `${name.replace('#', 's')}.ogg`]));
    const sampler = await new Promise<Piano['sampler']>((resolve, reject) => {
      const made: Piano['sampler'] = new tone.Sampler({
        urls,
        baseUrl: '/piano/',
        release: 0.4,
        onload: () => resolve(made),
        onerror: reject,
      }).toDestination();
    });
    return { tone, sampler };
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
  useEffect(() => stop, [stop]);

  const play = useCallback(
    async (id: string, keys: KeyInTime[], onEnd?: () => void) => {
      stop();
      setProblem(null);
      setSounding({ id, key: 0 });
      try {
        piano.current = await loadPiano();
      } catch {
        setSounding(null);
        return setProblem('The piano’s sounds could not be loaded: check that Wendel is running and try again.');
      }
      const { tone, sampler } = piano.current;
      await tone.start();
      const transport = tone.getTransport();
      let at = 0;
      keys.forEach((key, k) => {
        transport.schedule((time) => {
          tone.getDraw().schedule(() => setSounding({ id, key: k }), time);
          sampler.triggerAttackRelease(
            key.chord.map((m) => noteName(m)),
            key.chordS * 0.9,
            time,
            CHORD_LOUDNESS,
          );
        }, at);
        for (const note of key.notes)
          transport.schedule(
            (time) => sampler.triggerAttackRelease(noteName(note.midi), (note.endS - note.startS) * 0.98, time, NOTE_LOUDNESS),
            at + note.startS,
          );
        at += key.totalS;
      });
      transport.schedule(
        (time) =>
          tone.getDraw().schedule(() => {
            stop();
            onEnd?.();
          }, time),
        at,
      );
      transport.start(`+${LEAD_S}`, 0);
    },
    [stop],
  );

  return { sounding, problem, play, stop };
}

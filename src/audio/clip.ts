import { useCallback, useEffect, useRef, useState } from 'react';
import { writeWav } from '../core/format/wav';
import type { Pcm } from '../core/voice/types';

/** Sound as a file that a page can play. */
export const clipOf = (pcm: Pcm): Blob => new Blob([writeWav(pcm, 16)], { type: 'audio/wav' });

/** Plays short sounds one at a time: from an address, or held in the page. */
export function useClip() {
  const audio = useRef<HTMLAudioElement | null>(null);
  const held = useRef<string | null>(null);
  const [playing, setPlaying] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);

  const stop = useCallback(() => {
    audio.current?.pause();
    if (held.current) URL.revokeObjectURL(held.current);
    held.current = null;
    setPlaying(null);
  }, []);
  useEffect(() => stop, [stop]);

  /** Play a sound under a name; what plays already ends. */
  const play = useCallback(
    async (name: string, sound: string | Blob) => {
      stop();
      setProblem(null);
      const element = (audio.current ??= new Audio());
      if (typeof sound !== 'string') held.current = URL.createObjectURL(sound);
      element.src = typeof sound === 'string' ? sound : held.current!;
      element.onended = stop;
      setPlaying(name);
      try {
        await element.play();
      } catch {
        stop();
        setProblem('This sound could not be played: it may have been taken away, or the network is gone.');
      }
    },
    [stop],
  );
  return { playing, problem, play, stop };
}

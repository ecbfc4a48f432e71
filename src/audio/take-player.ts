import { useCallback, useEffect, useRef, useState } from 'react';

/** Where a stored take is playing: which, and the second it has reached. */
export interface Playing {
  takeId: string;
  atS: number;
}

/** One player for stored takes: plays a take from any point, to an end if given. */
export function useTakePlayer() {
  const audio = useRef<HTMLAudioElement | null>(null);
  const until = useRef(Infinity);
  const [playing, setPlaying] = useState<Playing | null>(null);

  const stop = useCallback(() => {
    audio.current?.pause();
    setPlaying(null);
  }, []);

  const play = useCallback(
    (takeId: string, fromS: number, toS = Infinity) => {
      const element = (audio.current ??= new Audio());
      const src = `/api/takes/${takeId}/audio`;
      until.current = toS;
      if (!element.src.endsWith(src)) element.src = src;
      element.currentTime = Math.max(0, fromS);
      element.onended = stop;
      setPlaying({ takeId, atS: Math.max(0, fromS) });
      // A play cut short by the next one is no fault.
      element.play().catch(() => {});
    },
    [stop],
  );

  const takeId = playing?.takeId;
  useEffect(() => {
    if (!takeId) return;
    let frame = requestAnimationFrame(function follow() {
      const element = audio.current!;
      if (element.currentTime >= until.current) return stop();
      setPlaying((p) => p && { ...p, atS: element.currentTime });
      frame = requestAnimationFrame(follow);
    });
    return () => cancelAnimationFrame(frame);
  }, [takeId, stop]);

  useEffect(() => () => audio.current?.pause(), []);

  return { playing, play, stop };
}

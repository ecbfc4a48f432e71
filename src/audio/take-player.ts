import { useCallback, useEffect, useRef, useState } from 'react';
import { addressOf } from '../sync/ask';

/** Where a stored take is playing: which, and the second it has reached. */
export interface Playing {
  takeId: string;
  atS: number;
}

/**
 * One player for stored takes: plays a take from any point, to an end if given, again and again and slower if wanted. With
 * `follows` the component is drawn anew at every frame, with the second that is reached.
 */
export function useTakePlayer(follows = true) {
  const audio = useRef<HTMLAudioElement | null>(null);
  const part = useRef<{ fromS: number; toS: number; then?: () => void }>({ fromS: 0, toS: Infinity });
  const [playing, setPlaying] = useState<Playing | null>(null);
  const [slow, setSlow] = useState(false);
  const [loop, setLoop] = useState(false);
  const manner = useRef({ slow, loop });
  useEffect(() => {
    manner.current = { slow, loop };
    // Half the speed at the same pitch.
    if (audio.current) audio.current.playbackRate = slow ? 0.5 : 1;
  }, [slow, loop]);

  const stop = useCallback(() => {
    audio.current?.pause();
    setPlaying(null);
  }, []);

  /** A part has come to its end: what was to follow it follows. */
  const ended = useCallback(() => {
    const { then } = part.current;
    stop();
    then?.();
  }, [stop]);

  /** Play a take from one second to another; `then` follows when it has come to its end. */
  const play = useCallback(
    (takeId: string, fromS: number, toS = Infinity, then?: () => void) => {
      const element = (audio.current ??= new Audio());
      const src = addressOf('GET /api/takes/[takeId]/audio', { takeId });
      part.current = { fromS: Math.max(0, fromS), toS, then };
      if (!element.src.endsWith(src)) element.src = src;
      element.currentTime = Math.max(0, fromS);
      element.preservesPitch = true;
      element.playbackRate = manner.current.slow ? 0.5 : 1;
      element.onended = () => {
        if (!manner.current.loop) return ended();
        element.currentTime = part.current.fromS;
        void element.play().catch(() => {});
      };
      setPlaying({ takeId, atS: Math.max(0, fromS) });
      // A play cut short by the next one is no fault.
      element.play().catch(() => {});
    },
    [ended],
  );

  const takeId = playing?.takeId;
  useEffect(() => {
    if (!takeId) return;
    let frame = requestAnimationFrame(function follow() {
      const element = audio.current!;
      if (element.currentTime >= part.current.toS) {
        if (!manner.current.loop) return ended();
        element.currentTime = part.current.fromS;
      }
      if (follows) setPlaying((p) => p && { ...p, atS: element.currentTime });
      frame = requestAnimationFrame(follow);
    });
    return () => cancelAnimationFrame(frame);
  }, [ended, follows, takeId]);

  useEffect(() => () => audio.current?.pause(), []);

  return { playing, play, stop, slow, setSlow, loop, setLoop };
}

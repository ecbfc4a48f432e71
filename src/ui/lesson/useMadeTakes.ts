import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import { onSent } from '../../sync/takes';
import { useTakePlayer } from '../../audio/take-player';
import { foundInWords } from '../../core/lesson/found-in-words';
import { analysed, discardTake } from '../listen/save-take';
import type { Finished } from '../listen/useRecorder';
import type { Made } from './MadeTakes';
import type { Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

/** The takes of a lesson: sent, listened to on the server, played and discarded. What is handed out stays the same from draw to draw. */
export function useMadeTakes(
  deliver: (finished: Finished) => Promise<void>,
  onProblem: (words: Said) => void,
  onDiscarded: (id: string) => void,
) {
  const router = useRouter();
  const [made, setMade] = useState<Made[]>([]);
  const { playing, play, stop } = useTakePlayer(false);
  const isPlaying = useRef(false);
  useEffect(() => {
    isPlaying.current = playing !== null;
  }, [playing]);

  const change = useCallback((id: string, to: Partial<Made>) => setMade((all) => all.map((m) => (m.id === id ? { ...m, ...to } : m))), []);

  /** Fetch what was found in a take that is on the server. */
  const listen = useCallback(
    async (id: string) => {
      change(id, { state: 'listening' });
      try {
        const { analysis } = await analysed(id);
        change(id, { state: 'found', found: analysis && foundInWords(analysis) });
      } catch {
        change(id, { state: 'failed' });
      }
    },
    [change],
  );

  /** Send a finished take, or once more one that could not be sent. */
  const send = useCallback(
    async (finished: Finished) => {
      const { id } = finished.take;
      void finished.heard?.then((heard) => change(id, { found: foundInWords(heard) }));
      try {
        await deliver(finished);
        await listen(id);
      } catch {
        change(id, { state: 'waiting' });
      }
    },
    [change, deliver, listen],
  );
  // What waited and was sent by itself later.
  useEffect(
    () =>
      onSent((id) =>
        setMade((all) => {
          if (all.some((m) => m.id === id && m.state === 'waiting')) void listen(id);
          return all;
        }),
      ),
    [listen],
  );

  const add = useCallback(
    (finished: Finished) => {
      setMade((all) => [...all, { id: finished.take.id, name: finished.take.step, state: 'sending', found: null }]);
      void send(finished);
    },
    [send],
  );
  const playOrStop = useCallback((id: string) => (isPlaying.current ? stop() : play(id, 0)), [play, stop]);
  const discard = useCallback(
    (id: string) =>
      void discardTake(id).then(
        () => (setMade((all) => all.filter((m) => m.id !== id)), onDiscarded(id), router.refresh()),
        (error: unknown) => onProblem(saidOf(error)),
      ),
    [onProblem, onDiscarded, router],
  );

  return { made, add, send, playOrStop, stopPlaying: stop, discard };
}

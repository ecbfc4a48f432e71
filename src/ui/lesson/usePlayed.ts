import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { followKeyboards, KeyboardState, soundKey } from '../../audio/keyboard';
import { KeyboardMessage, NOTHING_PLAYED, played, soundingNotes } from '../../core/music/midi-message';
import { useStored } from '../kit/useStored';
import { useLetters } from './useLetters';

/** What the coach plays, on the ladder's own keys, on a MIDI keyboard or on the letters: it sounds, is shown, and its lowest note can give the key. */
export function usePlayed() {
  const [now, setNow] = useState(NOTHING_PLAYED);
  /** The lowest note of what was played last. */
  const [lowest, setLowest] = useState<number | null>(null);
  const [follows, setFollows] = useStored<'yes' | 'no'>('wendel-midi', 'no');
  const [keyboard, setKeyboard] = useState<KeyboardState>({ is: 'off' });
  const state = useRef(NOTHING_PLAYED);

  const hear = useCallback((message: KeyboardMessage) => {
    const before = soundingNotes(state.current);
    state.current = played(state.current, message);
    const after = soundingNotes(state.current);
    if (message.does === 'press') void soundKey(message).catch(() => undefined);
    // What the pedal holds sounds on.
    for (const midi of before) if (!after.includes(midi)) void soundKey({ does: 'release', midi }).catch(() => undefined);
    if (message.does === 'press') setLowest(after[0]);
    setNow(state.current);
  }, []);

  useEffect(() => {
    if (follows === 'no') return;
    const stop = followKeyboards(hear, (next) => {
      // Nothing is left sounding by a cable that was pulled.
      if (next.is === 'gone') for (const midi of soundingNotes(state.current)) hear({ does: 'release', midi });
      setKeyboard(next);
    });
    return () => {
      stop();
      setKeyboard({ is: 'off' });
    };
  }, [follows, hear]);

  const [letters, setLetters] = useLetters(hear);
  const notes = useMemo(() => soundingNotes(now), [now]);
  return {
    notes,
    lowest,
    hear,
    follows: follows === 'yes',
    setFollows: (on: boolean) => setFollows(on ? 'yes' : 'no'),
    keyboard,
    letters,
    setLetters,
  };
}

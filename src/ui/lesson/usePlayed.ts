import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { followKeyboards, KeyboardState, soundKey } from '../../audio/keyboard';
import { KeyboardMessage, NOTHING_PLAYED, played, soundingNotes } from '../../core/music/midi-message';
import { melodyPlayed, PlayedNote, withKey } from '../../core/exercise/played';
import { useStored } from '../kit/useStored';
import { useLetters } from './useLetters';

/** What the coach plays, on the ladder's own keys, on a MIDI keyboard or on the letters: it sounds, is shown, and can give the key or the whole pattern. */
export function usePlayed() {
  const [now, setNow] = useState(NOTHING_PLAYED);
  /** The lowest note of what was played last. */
  const [lowest, setLowest] = useState<number | null>(null);
  const [history, setHistory] = useState<readonly PlayedNote[]>([]);
  const [follows, setFollows] = useStored<'yes' | 'no'>('wendel-midi', 'no');
  const [keyboard, setKeyboard] = useState<KeyboardState>({ is: 'off' });
  const state = useRef(NOTHING_PLAYED);

  const hear = useCallback((message: KeyboardMessage, atS = performance.now() / 1000) => {
    const before = soundingNotes(state.current);
    state.current = played(state.current, message);
    const after = soundingNotes(state.current);
    if (message.does === 'press') void soundKey(message).catch(() => undefined);
    // What the pedal holds sounds on.
    for (const midi of before) if (!after.includes(midi)) void soundKey({ does: 'release', midi }).catch(() => undefined);
    if (message.does === 'press') setLowest(after[0]);
    setHistory((notes) => withKey(notes, message, atS));
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
  /** The tune that was played last, once its last key is let go of. */
  const tune = useMemo(() => (history.some((note) => note.endS === null) ? null : melodyPlayed(history)), [history]);
  return {
    notes,
    lowest,
    tune,
    hear,
    follows: follows === 'yes',
    setFollows: (on: boolean) => setFollows(on ? 'yes' : 'no'),
    keyboard,
    letters,
    setLetters,
  };
}

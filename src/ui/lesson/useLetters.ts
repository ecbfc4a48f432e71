import { useEffect, useState } from 'react';
import { KeyboardMessage, NO_TOUCH } from '../../core/music/midi-message';
import { LETTER_OCTAVES, letterKey } from '../../core/music/letter-keys';

const TYPED_IN = 'input:not([type=checkbox], [type=radio]), select, textarea, [role=dialog] *';
/** Where the letters' C may lie: what a piano has of voices' notes. */
const LOWEST_C = 24;
const HIGHEST_C = 84;

/**
 * Letters that play the piano, until Escape: while they do, none of them is a key of the room.
 *
 * @returns the C they begin at, null while they don't play, and how to let them (from a C on) or not (null)
 */
export function useLetters(hear: (message: KeyboardMessage) => void) {
  const [fromC, setFromC] = useState<number | null>(null);
  useEffect(() => {
    if (fromC === null) return;
    /** What each held key plays; an octave's move lets go of all of them. */
    const held = new Map<string, number>();
    const release = (code: string) => {
      const midi = held.get(code);
      if (midi === undefined) return;
      held.delete(code);
      hear({ does: 'release', midi });
    };
    const releaseAll = () => [...held.keys()].forEach(release);
    const onDown = (event: KeyboardEvent) => {
      const { code } = event;
      if (event.ctrlKey || event.metaKey || event.altKey || (event.target as HTMLElement).matches?.(TYPED_IN)) return;
      const over = letterKey(code);
      const octave = LETTER_OCTAVES[code];
      if (over === null && !octave && code !== 'Escape') return;
      event.preventDefault();
      event.stopImmediatePropagation();
      if (event.repeat) return;
      if (code === 'Escape') setFromC(null);
      else if (octave) setFromC(Math.min(HIGHEST_C, Math.max(LOWEST_C, fromC + 12 * octave)));
      else {
        held.set(code, fromC + over!);
        hear({ does: 'press', midi: fromC + over!, velocity: NO_TOUCH });
      }
    };
    const onUp = (event: KeyboardEvent) => release(event.code);
    addEventListener('keydown', onDown, { capture: true });
    addEventListener('keyup', onUp, { capture: true });
    addEventListener('blur', releaseAll);
    return () => {
      releaseAll();
      removeEventListener('keydown', onDown, { capture: true });
      removeEventListener('keyup', onUp, { capture: true });
      removeEventListener('blur', releaseAll);
    };
  }, [fromC, hear]);
  return [fromC, setFromC] as const;
}

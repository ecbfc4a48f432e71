import { Said } from '../../core/words/said';
import { useEffect, useRef } from 'react';

/** A key of a room: its name in lower case (" " is Space), with Ctrl or the command key where it is a command. */
export interface Shortcut {
  key: string;
  command?: boolean;
  /** What it does, in a few words. */
  says: Said;
  act: (() => void) | null | undefined;
}

/** What every part of the page listens for now, in the order the parts came. */
const listening = new Set<{ current: { shortcuts: readonly Shortcut[] } }>();

/** The keys that work on this page now: each once, whoever listens. */
export const keysOfPage = (): Shortcut[] => {
  const all = [...listening].flatMap(({ current }) => current.shortcuts);
  return all.filter((s, i) => all.findIndex((o) => o.key === s.key && o.command === s.command) === i);
};

/** Let go of by the mouse when it has done its work, so that the next Space is the room's and not the button's once more. */
const PRESSED = 'button:not([aria-haspopup], [aria-expanded]), summary';
const CHOSEN = 'select, input[type=checkbox], input[type=radio]';
const TYPED_IN = 'input, select, textarea';
const OWN_SPACE = 'button, a, summary, [role=button]';

/**
 * Listen for a room's keys. What is typed into is left alone, and so is Space on a button that was gone to by keyboard. `repeats`: a
 * key that is held down goes on.
 */
export function useShortcuts(shortcuts: readonly Shortcut[], repeats = false) {
  const now = useRef({ shortcuts, repeats });
  useEffect(() => {
    now.current = { shortcuts, repeats };
  });
  useEffect(() => {
    listening.add(now);
    let byMouse = false;
    const letGo = (of: string) => () => {
      const held = document.activeElement;
      if (byMouse && held instanceof HTMLElement && held.matches(of)) held.blur();
    };
    const onPress = letGo(PRESSED);
    const onChoice = letGo(CHOSEN);
    const onPointer = () => {
      byMouse = true;
    };
    const onKey = (event: KeyboardEvent) => {
      byMouse = false;
      const { shortcuts, repeats } = now.current;
      const target = event.target as HTMLElement;
      if (target.matches?.(TYPED_IN) || event.altKey || (event.repeat && !repeats)) return;
      if (event.key === ' ' && target.matches?.(OWN_SPACE)) return;
      const command = event.ctrlKey || event.metaKey;
      const named = event.key.length === 1 ? event.key.toLowerCase() : event.key;
      // Forward again is Ctrl+Y on some systems and Ctrl+Shift+Z on others.
      const key = command && event.shiftKey && named === 'z' ? 'y' : named;
      const act = shortcuts.find((s) => s.key === key && Boolean(s.command) === command)?.act;
      if (!act) return;
      event.preventDefault();
      act();
    };
    addEventListener('pointerdown', onPointer, { capture: true });
    addEventListener('click', onPress);
    addEventListener('change', onChoice);
    addEventListener('keydown', onKey);
    return () => {
      listening.delete(now);
      removeEventListener('pointerdown', onPointer, { capture: true });
      removeEventListener('click', onPress);
      removeEventListener('change', onChoice);
      removeEventListener('keydown', onKey);
    };
  }, []);
}

/** The middle row of a computer's letters as white keys from C on, and the row over it as the black ones, by where they lie (KeyboardEvent.code). */
const WHITE = ['KeyA', 'KeyS', 'KeyD', 'KeyF', 'KeyG', 'KeyH', 'KeyJ', 'KeyK', 'KeyL'];
const BLACK = ['KeyW', 'KeyE', null, 'KeyT', 'KeyY', 'KeyU', null, 'KeyO'];
const MAJOR = [0, 2, 4, 5, 7, 9, 11];

const SEMITONES = new Map(
  [
    ...WHITE.map((code, i) => [code, 12 * Math.floor(i / 7) + MAJOR[i % 7]] as const),
    // A black key lies right of its white one.
    ...BLACK.map((code, i) => [code, 12 * Math.floor(i / 7) + MAJOR[i % 7] + 1] as const),
  ].filter((key): key is [string, number] => key[0] !== null),
);

/**
 * How many semitones over its C a letter plays; null: it plays nothing.
 *
 * @param code where the key lies, as `KeyboardEvent.code` names it, so that every language's keyboard plays alike
 * @example letterKey('KeyH') // 9: A
 */
export const letterKey = (code: string): number | null => SEMITONES.get(code) ?? null;

/** The keys that move all letters an octave. */
export const LETTER_OCTAVES: Record<string, 1 | -1 | undefined> = { Comma: -1, Period: 1 };

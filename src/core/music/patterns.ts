/** Patterns a voice is heard on (common practice, no source): scale degrees of one key, by name. */
export const PATTERNS: Record<string, number[]> = {
  'five notes up and down': [1, 2, 3, 4, 5, 4, 3, 2, 1],
  'five notes down': [5, 4, 3, 2, 1],
  triad: [1, 3, 5, 3, 1],
  'octave arpeggio': [1, 3, 5, 8, 5, 3, 1],
  'top-down arpeggio': [8, 5, 3, 1],
  'nine-note scale': [1, 2, 3, 4, 5, 6, 7, 8, 9, 8, 7, 6, 5, 4, 3, 2, 1],
  'octave scale': [1, 2, 3, 4, 5, 6, 7, 8, 7, 6, 5, 4, 3, 2, 1],
  'octave and a fifth': [1, 3, 5, 8, 10, 12, 10, 8, 5, 3, 1],
};

/** What a pattern that was asked for is called. */
export const ASKED_FOR = 'the pattern asked for';

// A short recording of a voice, kept whole in one row: a model to imitate, a word to the coach.

/** Ten seconds, and a moment for the hand. */
export const SHORT_S = 10;
export const LONGEST_SHORT_S = 12;
/** What it is kept at, samples a second: enough for a voice, half the bytes. */
export const SHORT_RATE = 22050;
export const MOST_SHORT_BYTES = 600 * 1024;

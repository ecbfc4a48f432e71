import { LONGEST_SHORT_S } from '../core/format/short-sound';
import { secondsOf, SoundFileError, wavLayout } from '../core/format/wav';
import { said } from '../core/words/said';
import { Refusal } from './refusal';

/** @throws Refusal (incomplete) when a short recording is no sound, or too long. */
export function mustBeShort(wav: Buffer): void {
  const seconds = lengthOf(wav);
  if (seconds > LONGEST_SHORT_S)
    throw new Refusal(
      'incomplete',
      said('It may be {most} seconds long at most; this recording has {seconds}.', { most: LONGEST_SHORT_S, seconds: Math.round(seconds) }),
    );
}

function lengthOf(wav: Buffer): number {
  try {
    return secondsOf(wavLayout(wav));
  } catch (error) {
    throw error instanceof SoundFileError ? new Refusal('incomplete', error.says) : error;
  }
}

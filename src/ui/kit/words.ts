import { FindingName, Vote } from '../../core/map/types';
import { Task } from '../../core/take/types';
import { texts } from '../../core/words/said';

export const FINDING_WORDS: Record<FindingName, string> = texts({
  flip: 'Flip',
  toggle: 'Toggle',
  blended: 'Blended',
  'pulled-chest': 'Pulled chest',
  'no-chest': 'No chest',
  'weak-first-head': 'Weak first head notes',
  'uneven-loudness': 'Uneven loudness',
});

/** What is heard at a change. */
export const EVENT_WORDS: Record<Vote['kind'], string> = texts({
  flip: 'leaps across',
  crack: 'cracks',
  timbre: 'colour changes at once',
  dip: 'level dips',
  blend: 'colour changes gradually',
});

/** Whose word it is, where it isn't the machine's. */
export const SOURCE_WORDS: Partial<Record<Vote['source'], string>> = texts({ coach: 'your ear', singer: 'the singer feels it' });

export const TASK_WORDS: Record<Task, string> = texts({
  siren: 'Siren',
  scale: 'Scale',
  sustain: 'Held note',
  speech: 'Counting aloud',
  free: 'Free take',
});

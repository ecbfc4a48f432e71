import { thresholdOf } from '../../core/ears/staircase';
import { makeTrial } from '../../core/ears/trial';
import type { EarChoice, EarRecord, EarTask } from '../../core/ears/types';
import { noteName } from '../../core/music/pitch';

export const TASK_WORDS: Record<EarTask, { name: string; asks: string }> = {
  place: { name: 'Place the change', asks: 'A slide up and back: at which note does it flip?' },
  name: { name: 'Name it', asks: 'A slide up and back: what happens at the change?' },
  register: { name: 'Chest or head', asks: 'One held note: which is it nearer to?' },
  louder: { name: 'Which is louder', asks: 'The same note twice: which is louder?' },
};

const STYLES = {
  flip: 'it flips',
  toggle: 'it toggles',
  blend: 'it blends',
  pulled: 'chest is pulled up',
  'no-chest': 'there is no chest',
};

export function choiceInWords(choice: EarChoice): string {
  if (choice.kind === 'note') return noteName(choice.midi);
  if (choice.kind === 'style') return STYLES[choice.style];
  if (choice.kind === 'register') return choice.register;
  return choice.which === 1 ? 'the first' : 'the second';
}

const size = (n: number, unit: string) => `${Number(n.toFixed(1))} ${unit}${Number(n.toFixed(1)) === 1 ? '' : 's'}`;
const SIZES: Record<EarTask, (n: number) => string> = {
  place: (n) => `notes ${size(n, 'semitone')} apart`,
  name: (n) => `leaps of ${size(n, 'semitone')}`,
  register: (n) => `${Math.round(100 * n)} % off the middle between chest and head`,
  louder: (n) => `${Number(n.toFixed(1))} dB between them`,
};

/** How hard a trial of this level is, in the task's own unit. */
export const levelInWords = (task: EarTask, level: number): string => SIZES[task](makeTrial(task, level, 1).size);

/** Where an ear is sure four times in five, in words; before it is known, what is missing. */
export function standingInWords(task: EarTask, record: EarRecord): string {
  const threshold = thresholdOf(record);
  return threshold === null
    ? 'Some more answers, and your own measure stands here.'
    : `Right four times in five at ${levelInWords(task, threshold)}.`;
}

import { thresholdOf } from '../../core/ears/staircase';
import { makeTrial } from '../../core/ears/trial';
import type { EarChoice, EarRecord, EarTask } from '../../core/ears/types';
import type { Compared, PassName, PassWord } from '../../core/ears/passes';
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

/** What can be answered of a pass. */
export const PASS_WORDS: Record<PassName, string> = {
  flip: STYLES.flip,
  toggle: STYLES.toggle,
  blended: STYLES.blend,
  none: 'nothing changes',
};

/** A word on a pass. @example passInWords({ name: 'flip', midi: 64 }) // 'it flips at E4' */
export const passInWords = ({ name, midi }: PassWord): string => `${PASS_WORDS[name]}${midi === null ? '' : ` at ${noteName(midi)}`}`;

/** From so many passes on it is told how far two listeners agree: under that, chance is most of it (this house's). */
const TOLD_FROM = 10;

/** How two listeners compare, in a sentence. */
export function comparedInWords({ names: { n, share, kappa }, placed }: Compared): string {
  if (n < TOLD_FROM) return `${n === 1 ? 'One pass' : `${n} passes`} so far; from ${TOLD_FROM} on it is told how far you agree.`;
  const alike = `${Math.round(100 * share)} % of ${n} passes named alike`;
  const beyond = kappa === null ? '' : ` (kappa ${kappa.toFixed(2).replace('-', '−')})`;
  const apart = placed ? `; ${placed.n} placed by both, at the median ${size(placed.apartSt, 'semitone')} apart` : '';
  return `${alike}${beyond}${apart}.`;
}

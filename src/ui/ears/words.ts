import { thresholdOf } from '../../core/ears/staircase';
import { makeTrial } from '../../core/ears/trial';
import type { EarChoice, EarRecord, EarTask } from '../../core/ears/types';
import type { Compared, PassName, PassWord } from '../../core/ears/passes';
import { said, Said, texts } from '../../core/words/said';

export const TASK_WORDS: Record<EarTask, { name: string; asks: string }> = texts({
  place: { name: 'Place the change', asks: 'A slide up and back: at which note does it flip?' },
  name: { name: 'Name it', asks: 'A slide up and back: what happens at the change?' },
  register: { name: 'Chest or head', asks: 'One held note: which is it nearer to?' },
  louder: { name: 'Which is louder', asks: 'The same note twice: which is louder?' },
});

const STYLES = texts({
  flip: 'it flips',
  toggle: 'it toggles',
  blend: 'it blends',
  pulled: 'chest is pulled up',
  'no-chest': 'there is no chest',
});

const REGISTERS = texts({ chest: 'chest', head: 'head' });

export function choiceInWords(choice: EarChoice): Said {
  if (choice.kind === 'note') return said('{note}', { note: { note: choice.midi } });
  if (choice.kind === 'style') return STYLES[choice.style];
  if (choice.kind === 'register') return REGISTERS[choice.register];
  return choice.which === 1 ? said('the first') : said('the second');
}

const tenths = (n: number) => Number(n.toFixed(1));
const SIZES: Record<EarTask, (n: number) => Said> = {
  place: (n) => said('{n, plural, one {notes # semitone apart} other {notes # semitones apart}}', { n: tenths(n) }),
  name: (n) => said('{n, plural, one {leaps of # semitone} other {leaps of # semitones}}', { n: tenths(n) }),
  register: (n) => said('{percent} % off the middle between chest and head', { percent: Math.round(100 * n) }),
  louder: (n) => said('{n} dB between them', { n: tenths(n) }),
};

/** How hard a trial of this level is, in the task's own unit. */
export const levelInWords = (task: EarTask, level: number): Said => SIZES[task](makeTrial(task, level, 1).size);

/** Where an ear is sure four times in five, in words; before it is known, what is missing. */
export function standingInWords(task: EarTask, record: EarRecord): Said {
  const threshold = thresholdOf(record);
  return threshold === null
    ? said('Some more answers, and your own measure stands here.')
    : said('Right four times in five at {level}.', { level: levelInWords(task, threshold) });
}

/** What can be answered of a pass. */
export const PASS_WORDS: Record<PassName, string> = texts({
  flip: STYLES.flip,
  toggle: STYLES.toggle,
  blended: STYLES.blend,
  none: 'nothing changes',
});

/** A word on a pass. @example passInWords({ name: 'flip', midi: 64 }) // 'it flips at E4' */
export const passInWords = ({ name, midi }: PassWord): Said =>
  midi === null ? PASS_WORDS[name] : said('{what} at {note}', { what: PASS_WORDS[name], note: { note: midi } });

/** From so many passes on it is told how far two listeners agree: under that, chance is most of it (this house's). */
const TOLD_FROM = 10;

/** How two listeners compare, in a sentence. */
export function comparedInWords({ names: { n, share, kappa }, placed }: Compared): Said {
  if (n < TOLD_FROM)
    return said('{n, plural, one {One pass} other {# passes}} so far; from {from} on it is told how far you agree.', {
      n,
      from: TOLD_FROM,
    });
  const of = { percent: Math.round(100 * share), n, kappa: kappa ?? 0 };
  const alike =
    kappa === null
      ? said('{percent} % of {n} passes named alike', of)
      : said('{percent} % of {n} passes named alike (kappa {kappa, number, ::.00})', of);
  return placed
    ? said('{alike}; {placed} placed by both, at the median {apart, plural, one {# semitone} other {# semitones}} apart.', {
        alike,
        placed: placed.n,
        apart: tenths(placed.apartSt),
      })
    : said('{alike}.', { alike });
}

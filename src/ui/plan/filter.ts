import { Exercise, Family, Strand } from '../../core/exercise/types';
import { FindingName } from '../../core/map/types';
import { FAMILY_WORDS, STRAND_WORDS } from '../kit/words-of-work';

/** What is looked for on the shelf; empty: anything. */
export interface Filter {
  text: string;
  family: Family | '';
  strand: Strand | '';
  finding: FindingName | '';
  grade: number | 0;
}

export const ANYTHING: Filter = { text: '', family: '', strand: '', finding: '', grade: 0 };

/** Exercises that fit: every word must be somewhere in the name, the sounds or what it is for. */
export function filtered(shelf: readonly Exercise[], f: Filter): Exercise[] {
  const words = f.text.toLowerCase().split(/\s+/).filter(Boolean);
  return shelf.filter((e) => {
    if (f.family && e.family !== f.family) return false;
    if (f.strand && e.strand !== f.strand) return false;
    if (f.finding && !e.suits.includes(f.finding)) return false;
    if (f.grade && e.grade !== f.grade) return false;
    const said = [e.name, e.how, e.purpose, FAMILY_WORDS[e.family], STRAND_WORDS[e.strand], ...e.sounds].join(' ').toLowerCase();
    return words.every((w) => said.includes(w));
  });
}

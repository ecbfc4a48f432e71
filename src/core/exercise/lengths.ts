/** A note as it is written: its type, dots, whether it belongs to a triplet, and its length in crotchets. */
export interface WrittenLength {
  beats: number;
  type: NoteType;
  dots: 0 | 1;
  triplet: boolean;
}

const TYPES = [
  [8, 'breve'],
  [4, 'whole'],
  [2, 'half'],
  [1, 'quarter'],
  [0.5, 'eighth'],
  [0.25, '16th'],
  [0.125, '32nd'],
] as const;
export type NoteType = (typeof TYPES)[number][1];

const CLOSE = 1e-6;

/** Every length one note can have, longest first; plain and dotted ones before triplets. */
const LENGTHS: readonly WrittenLength[] = TYPES.flatMap(([beats, type]): WrittenLength[] => [
  { beats: beats * 1.5, type, dots: 1, triplet: false },
  { beats, type, dots: 0, triplet: false },
  { beats: (beats * 2) / 3, type, dots: 0, triplet: true },
]).sort((a, b) => Number(a.triplet) - Number(b.triplet) || b.beats - a.beats);

/** How a length in crotchets is written: one note where one will do, otherwise tied ones. @throws RangeError when it can't be. */
export function writtenLengths(beats: number): WrittenLength[] {
  const out: WrittenLength[] = [];
  for (let left = beats; left > CLOSE; left -= out[out.length - 1].beats) {
    const part = LENGTHS.find((l) => Math.abs(l.beats - left) < CLOSE) ?? LENGTHS.find((l) => l.beats < left);
    if (!part) throw new RangeError(`A length of ${beats} crotchets can't be written.`);
    out.push(part);
  }
  return out;
}

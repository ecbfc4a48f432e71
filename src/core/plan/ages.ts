/** Ages that ask for another way of working (common practice, no source). */
export const AGES = ['under-9', '9-12', '13-15', '16-17', 'adult', 'older'] as const;
export type Age = (typeof AGES)[number];

interface OfAge {
  name: string;
  /** Of age: adults agree to things themselves. */
  minor: boolean;
  /** Practice a day at most, minutes. */
  mostMinutes: number;
  /** Only the comfortable band: falling and three-note patterns, nothing at the ends. */
  band: boolean;
  /** No straw: too small a child for it. */
  noStraw?: true;
  /** Patterns this much slower than usual, never under their slowest; the warm-up this much longer. */
  pace?: number;
  warmUp?: number;
  says: string | null;
}

const NO_LIMIT = Infinity;

/** What an age allows (common practice, no source). */
export const BY_AGE: Record<Age, OfAge> = {
  'under-9': {
    name: 'under 9',
    minor: true,
    mostMinutes: 10,
    band: true,
    noStraw: true,
    says: 'A child’s voice: play, falling patterns, a few minutes at a time.',
  },
  '9-12': {
    name: '9 to 12',
    minor: true,
    mostMinutes: 15,
    band: false,
    says: 'A young voice: no range pushing, nothing loud, and a listening again within six weeks.',
  },
  '13-15': {
    name: '13 to 15',
    minor: true,
    mostMinutes: 15,
    band: false,
    says: 'A young voice: no range pushing, nothing loud, and a listening again within four weeks.',
  },
  '16-17': {
    name: '16 to 17',
    minor: true,
    mostMinutes: 25,
    band: false,
    says: 'A young voice: no range pushing, nothing loud, and a listening again within six weeks.',
  },
  adult: { name: 'adult', minor: false, mostMinutes: NO_LIMIT, band: false, says: null },
  older: {
    name: 'older',
    minor: false,
    mostMinutes: NO_LIMIT,
    band: false,
    pace: 0.85,
    warmUp: 1.5,
    says: 'An older voice: a longer, gentler warm-up, slower patterns, and easy glides.',
  },
};

/** A voice that is changing is listened to again within three weeks, and sings in its comfortable band only. */
export const CHANGING_SAYS =
  'A voice that is changing: only the comfortable band, falling, with nothing asked at the ends; listen again within three weeks. Cracks belong to it.';

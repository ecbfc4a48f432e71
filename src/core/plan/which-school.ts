import type { FindingName } from '../map/types';
import { SCHOOL_IDS, SchoolId } from '../map/schools';
import type { Planning } from './check';
import type { Lean } from './voice';

/** What somebody sings, as far as it decides how a voice is taught. */
export const STYLES = ['opera', 'choir', 'musical-theatre', 'pop', 'rock', 'soul-jazz', 'folk'] as const;
export type Style = (typeof STYLES)[number];
export const STYLE_WORDS: Record<Style, string> = {
  opera: 'Opera and art song',
  choir: 'Choir',
  'musical-theatre': 'Musical theatre',
  pop: 'Pop',
  rock: 'Rock',
  'soul-jazz': 'Soul, R&B, jazz',
  folk: 'Folk',
};

/** What somebody wants most from their voice. */
export const WISHES = ['no-break', 'power', 'ease', 'light', 'range'] as const;
export type Wish = (typeof WISHES)[number];
export const WISH_WORDS: Record<Wish, string> = {
  'no-break': 'No break between chest and head',
  power: 'Power in the upper middle',
  ease: 'Less effort',
  light: 'A light, soft top',
  range: 'A wider range',
};

/** What is known when a school is chosen. */
export interface Asking {
  style?: Style;
  wish?: Wish;
  findings: readonly FindingName[];
  lean: Lean;
  minor: boolean;
}

/** What is known of a voice that is planned for, and said at intake. */
export const askingOf = (
  { map, lean, minor }: Pick<Planning, 'map' | 'lean' | 'minor'>,
  { style, wish }: Pick<Asking, 'style' | 'wish'>,
): Asking => ({
  style,
  wish,
  findings: map.findings.map((f) => f.name),
  lean,
  minor,
});

/** One thing that speaks for a school (points over zero) or against it, in a sentence. */
interface Reason {
  when: (asking: Asking) => boolean;
  points: Partial<Record<SchoolId, number>>;
  says: string;
}

const sings =
  (...styles: Style[]) =>
  (a: Asking) =>
    a.style !== undefined && styles.includes(a.style);
const wants = (wish: Wish) => (a: Asking) => a.wish === wish;
const shows = (finding: FindingName) => (a: Asking) => a.findings.includes(finding);

/** What speaks for and against (common practice, no source); health and the voice weigh more than taste. */
export const REASONS: readonly Reason[] = [
  {
    when: sings('opera'),
    points: { classical: 3, covered: 2 },
    says: 'Opera and art song ask for vowels rounded in time and an even line.',
  },
  {
    when: sings('choir'),
    points: { classical: 2, 'early-connect': 1.5 },
    says: 'A choir asks for an even line that blends, and soft high entries.',
  },
  {
    when: sings('musical-theatre'),
    points: { bridges: 2.5, 'chest-first': 2 },
    says: 'Musical theatre asks for speech-like chest, a bright mix and a belt, and changes between them.',
  },
  { when: sings('pop'), points: { bridges: 3, 'early-connect': 1.5 }, says: 'Pop lives in the mix: narrow and bright across each bridge.' },
  {
    when: sings('rock'),
    points: { 'chest-first': 3, bridges: 1.5 },
    says: 'Rock carries chest high: it is stretched first, then let go of on purpose.',
  },
  { when: sings('soul-jazz'), points: { 'early-connect': 3, bridges: 1.5 }, says: 'Soul and jazz runs stay light: head comes down early.' },
  {
    when: sings('folk'),
    points: { bridges: 2, 'early-connect': 1 },
    says: 'Folk stays near speech, and passes the change without showing it.',
  },
  {
    when: wants('no-break'),
    points: { 'early-connect': 1, 'release-first': 1, bridges: 1 },
    says: 'No break is wanted: joining comes before power.',
  },
  { when: wants('power'), points: { 'chest-first': 1.5, covered: 1 }, says: 'Power in the upper middle is wanted.' },
  { when: wants('ease'), points: { 'release-first': 2 }, says: 'Less effort is wanted: letting go is taught first.' },
  { when: wants('light'), points: { 'early-connect': 2, classical: 0.5 }, says: 'A light, soft top is wanted.' },
  { when: wants('range'), points: { bridges: 1, classical: 0.5 }, says: 'A wider range is wanted: each bridge is passed in turn.' },
  {
    when: (a) => a.lean === 'pushes',
    points: { 'release-first': 4 },
    says: 'This voice carries chest too high: it has to let go before anything else.',
  },
  {
    when: (a) => a.lean === 'pushes',
    points: { 'chest-first': -5, covered: -1.5 },
    says: 'This voice carries chest too high already: stretching it would load it further.',
  },
  {
    when: (a) => a.lean === 'light',
    points: { 'release-first': -4, 'early-connect': -3 },
    says: 'A light voice has little to let go of; it would only get lighter.',
  },
  {
    when: (a) => a.lean === 'heavy',
    points: { 'early-connect': 1.5 },
    says: 'Chest outweighs head in this voice: head brought down evens it.',
  },
  { when: (a) => a.lean === 'heavy', points: { 'chest-first': -1 }, says: 'Chest outweighs head already.' },
  {
    when: shows('weak-first-head'),
    points: { 'release-first': -1.5 },
    says: 'The first head notes are thin: breathiness would thin them more.',
  },
  { when: shows('weak-first-head'), points: { bridges: 1 }, says: 'Narrow, bright sounds give thin head notes a core.' },
  { when: (a) => a.minor, points: { 'chest-first': -6, covered: -4 }, says: 'A young voice is neither stretched nor darkened.' },
];

/** A school for a voice: how much speaks for it in all, and what. */
export interface SchoolFor {
  id: SchoolId;
  points: number;
  speaksFor: string[];
  speaksAgainst: string[];
}

/** The schools for a voice and what is wanted of it, the likeliest first. The coach decides. */
export function schoolsFor(asking: Asking): SchoolFor[] {
  const apply = REASONS.filter((r) => r.when(asking));
  return SCHOOL_IDS.map((id): SchoolFor => {
    const about = apply.flatMap(({ points, says }) => (points[id] ? [{ points: points[id], says }] : []));
    return {
      id,
      points: about.reduce((sum, r) => sum + r.points, 0),
      speaksFor: about.filter((r) => r.points > 0).map((r) => r.says),
      speaksAgainst: about.filter((r) => r.points < 0).map((r) => r.says),
    };
  }).sort((a, b) => b.points - a.points);
}

/** A school is proposed only where so much more speaks for it than for the one that is taught. */
const CLEARLY = 2;

/** The school that should be thought of instead of the one that is taught; null where nothing clearly speaks for another. */
export function proposedSchool(asking: Asking, taught: SchoolId): { instead: SchoolFor; taught: SchoolFor } | null {
  const all = schoolsFor(asking);
  const now = all.find((s) => s.id === taught)!;
  return all[0].points - now.points >= CLEARLY ? { instead: all[0], taught: now } : null;
}

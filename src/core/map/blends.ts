import { Direction, Leg, Range } from '../take/types';
import { Rise, SourceModel, sourceModel } from './source-model';
import { Passaggio, TakeEvidence, Vote } from './types';

/** From one harmonic to the second. */
const OCTAVE_ST = 12;
/** Legs that span less tell no blend, and fewer of them neither. */
const LEAST_SPAN_ST = 9;
const FEWEST_LEGS = 3;
/** So many of the last takes tell it as well as more. */
const MOST_TAKES = 16;
/** Places are tried this far apart, from so far over the lowest (chest spans a fifth at least) to so far under the highest pitch. */
const PLACE_ST = 0.5;
const OVER_LOWEST_ST = 6.5;
const UNDER_HIGHEST_ST = 3.5;
const WIDTHS_ST = [2, 4, 6];
/** Coming down the change lies lower by so much (common practice: a semitone or two). */
const HYSTERESES_ST = [0.5, 1.5, 3];
/** Beside a change that is heard, or another blend, it lies so far away (bridges lie a fourth to a fifth apart; common practice). */
const APART_ST = 7;
/**
 * Beside another it lies so far under the first formant of every slide: near that, what a vowel does looks like the second change of a
 * voice (tuned on simulated singers of five makers).
 */
const SECOND_UNDER_FORMANT_ST = 7.5;
/**
 * A change that is heard no lower than D5 is a voice's second (women's lies from D5 to F#5: Miller 1986, from memory): under it lies the
 * first, which is no rarer for that, and nearer to the first formant may be asked for. It is looked for on the open vowels alone: those
 * whose first formants lie so near to the highest of all ("oo" and "ee" meet theirs where chest ends).
 */
const SECOND_FROM_MIDI = 74.5;
const FIRST_UNDER_FORMANT_ST = 3;
const OPEN_WITHIN_ST = 9;
/** Nats of evidence, over all places tried, that a blend needs: more where all takes have one vowel, which can't be told from the voice then. */
const LEAST_EVIDENCE = { vowels: -0.3, oneVowel: 0 };
/** Vowels that turn so far apart are two. */
const VOWELS_APART_ST = 2;
/** How well its place must be known. */
const MOST_SPREAD_ST = 2.5;
/** What one vowel shows and another denies, by so many nats, is the vowel: where pitch meets the first formant the first harmonic gains too. */
const DENIED = -1.5;
/**
 * A change happens in a take, so the takes' own evidence makes up this share of all at least (over twice of it in most true blends, a third
 * or less in false ones; tuned on simulated singers of four makers). What only the takes side by side say is what their vowels differ by.
 */
const OWN_SHARE = 0.8;
/** A take tells of a change by more nats than this. */
const TELLS = 0.1;
/** A voice with no change heard has one it blends more often than not, nats. */
const ODDS = 0.5;
/** Beside a change that is known another is rarer: so many nats less. */
const SECOND_NATS = 1;
const MOST_BLENDS = 2;
/**
 * Where chest hands over to head in any voice: from F3, the lowest that basses name, to F#5, a soprano's second passaggio (Miller 1986, from
 * memory; common practice). Colour alone that turns elsewhere is doubted, more with each semitone, nats: a blend is the weakest evidence.
 */
const LOWEST_CHANGE_MIDI = 53;
const HIGHEST_CHANGE_MIDI = 78;
const DOUBT_PER_ST = 1;
const doubtOf = (midi: number) => DOUBT_PER_ST * Math.max(0, LOWEST_CHANGE_MIDI - midi, midi - HIGHEST_CHANGE_MIDI);

/**
 * Changes that no pass makes audible: the colour of all slides together says where chest turns into head little by little.
 * Every leg that went by votes for it.
 */
export function blendVotes(takes: TakeEvidence[], heard: Passaggio[], recency: Map<string, number>): Vote[] {
  const slides = takes
    .map(({ takeId, findings }) => {
      // The vowel turns where its first formant meets the second harmonic.
      const formantMidi = (findings.vowelTurnMidi ?? turnOutside(findings.range) ?? Infinity) + OCTAVE_ST;
      return { takeId, turnMidi: findings.vowelTurnMidi, formantMidi, legs: findings.legs.map((leg) => underFormant(leg, formantMidi)) };
    })
    .filter(({ legs }) => legs.some(isLong))
    .slice(-MOST_TAKES);
  if (slides.flatMap(longLegs).length < FEWEST_LEGS) return [];
  const whole = sourceModel(slides.map(longLegs));
  if (!whole) return [];
  const turns = slides.flatMap(({ turnMidi }) => turnMidi ?? []);
  const least = Math.max(...turns) - Math.min(...turns) > VOWELS_APART_ST ? LEAST_EVIDENCE.vowels : LEAST_EVIDENCE.oneVowel;
  const known = heard.map(riseOf);
  const votes: Vote[] = [];
  let found = 0;
  for (let n = 0; n < MOST_BLENDS; n++) {
    const look = known.length > 0 ? besideKnown(slides, whole, known) : { model: whole, underMidi: Infinity };
    const blend = look && bestBlend(look.model, known, look.underMidi);
    if (!look || !blend) break;
    const isRarer = heard.length + found > 0 && !isSecond(known);
    const nats = blend.evidence - (isRarer ? SECOND_NATS : 0);
    if (!(nats > least)) break;
    known.push(blend.rise);
    const byTake = look.model.evidenceByTake(blend.rise, known.slice(0, -1));
    const own = byTake.reduce((a, b) => a + b, 0);
    // One take proves nothing where there are more.
    const alone = byTake.length > 2 && byTake.filter((e) => e > TELLS).length < 2;
    if (alone || rejected(takes, blend.rise) || byTake.some((e) => e < DENIED) || own < OWN_SHARE * blend.evidence) continue;
    found++;
    const confidence = 1 / (1 + Math.exp(-nats - ODDS));
    for (const { takeId, legs } of slides)
      legs.forEach((leg, l) => {
        if (isLong(leg)) votes.push(...vote(takeId, l, leg, blend.rise, (recency.get(takeId) ?? 1) * confidence));
      });
  }
  return votes;
}

interface Slide {
  /** Where pitch meets the first formant of its vowel. */
  formantMidi: number;
  legs: Leg[];
}

const longLegs = ({ legs }: Slide) => legs.filter(isLong);

/** Whether the lowest change known is a voice's second. */
const isSecond = (known: Rise[]) => known.every((rise) => middleOf(rise) >= SECOND_FROM_MIDI);

/** What a further change is looked for in, and under which pitch. */
function besideKnown(slides: Slide[], whole: SourceModel, known: Rise[]): { model: SourceModel; underMidi: number } | null {
  const lowest = (of: Slide[]) => Math.min(...of.map(({ formantMidi }) => formantMidi));
  if (!isSecond(known)) return { model: whole, underMidi: lowest(slides) - SECOND_UNDER_FORMANT_ST };
  const told = slides.filter(({ formantMidi }) => formantMidi < Infinity);
  const highest = Math.max(...told.map(({ formantMidi }) => formantMidi));
  const open = told.filter(({ formantMidi }) => formantMidi >= highest - OPEN_WITHIN_ST);
  const model = sourceModel(open.map(longLegs));
  return model && { model, underMidi: lowest(open) - FIRST_UNDER_FORMANT_ST };
}

/** Where the second harmonic meets the first formant on closed and on open vowels: at 140 Hz, men's "oo", and at 520 Hz, children's "ah" (Peterson & Barney 1952, from memory). */
const LOWEST_TURN_MIDI = 49;
const HIGHEST_TURN_MIDI = 72;

/** A vowel that doesn't turn in the range of a take turns under it, where there is more room for that than over it. */
const turnOutside = (range: Range | null): number | null =>
  range && range.lowestMidi - LOWEST_TURN_MIDI > HIGHEST_TURN_MIDI - range.highestMidi ? range.lowestMidi : null;

/** A leg without the pitches over the first formant, which a singer moves along with them. */
const underFormant = (leg: Leg, formantMidi: number): Leg => ({
  ...leg,
  harmonics: leg.harmonics?.filter(({ midi }) => midi < formantMidi),
});

const isLong = ({ harmonics, lowestMidi, highestMidi }: Leg) => (harmonics?.length ?? 0) > 0 && highestMidi - lowestMidi >= LEAST_SPAN_ST;

const middleOf = ({ upMidi, downMidi }: Rise) => (upMidi + downMidi) / 2;

/** Where the coach said that there is nothing, nothing is made of colour either. */
const rejected = (takes: TakeEvidence[], rise: Rise) =>
  takes.some(({ marks }) => marks.some((m) => m.verdict === 'reject' && Math.abs(m.midi - middleOf(rise)) < APART_ST));

const riseOf = ({ midi, upMidi, downMidi }: Passaggio): Rise => ({
  upMidi: upMidi ?? midi,
  downMidi: downMidi ?? midi,
  widthSt: HEARD_WIDTH_ST,
});

/** Colour turns over so much where a change is heard. */
const HEARD_WIDTH_ST = 1.5;

interface Blend {
  rise: Rise;
  /** Nats, over all places tried. */
  evidence: number;
}

/** The likeliest change beside those known, under `highestMidi`: the mean over all places, widths and hystereses, each weighed by its evidence. */
function bestBlend(model: SourceModel, known: Rise[], highestMidi: number): Blend | null {
  const rises: Rise[] = [];
  const last = Math.min(model.highMidi - UNDER_HIGHEST_ST, highestMidi);
  for (let midi = model.lowMidi + OVER_LOWEST_ST; midi <= last; midi += PLACE_ST)
    for (const widthSt of WIDTHS_ST)
      for (const apart of HYSTERESES_ST) rises.push({ upMidi: midi + apart / 2, downMidi: midi - apart / 2, widthSt });
  const tried = rises.filter((rise) => known.every((k) => Math.abs(middleOf(k) - middleOf(rise)) >= APART_ST));
  if (tried.length === 0) return null;
  const evidence = model.evidenceFor(tried, known).map((e, i) => e - doubtOf(middleOf(tried[i])));
  const most = Math.max(...evidence);
  const weights = evidence.map((e) => Math.exp(e - most));
  const total = weights.reduce((a, b) => a + b, 0);
  const mean = (value: (rise: Rise) => number) => tried.reduce((s, rise, i) => s + (weights[i] / total) * value(rise), 0);
  const place = mean(middleOf);
  const spread = Math.sqrt(mean((rise) => (middleOf(rise) - place) ** 2));
  // What isn't tried for lying beside a known change is no evidence either way.
  const inAll = most + Math.log(total / rises.length);
  if (spread > MOST_SPREAD_ST) return null;
  return {
    rise: { upMidi: mean((r) => r.upMidi), downMidi: mean((r) => r.downMidi), widthSt: mean((r) => r.widthSt) },
    evidence: inAll,
  };
}

function vote(takeId: string, leg: number, { direction, startS, endS, lowestMidi, highestMidi }: Leg, rise: Rise, weight: number): Vote[] {
  const midi = placeIn(rise, direction);
  if (lowestMidi > midi - 2 || highestMidi < midi + 2) return [];
  const timeS = (startS + endS) / 2;
  return [{ takeId, leg, timeS, midi, direction, kind: 'blend', widthSt: rise.widthSt, weight, source: 'machine' }];
}

const placeIn = ({ upMidi, downMidi }: Rise, direction: Direction) => (direction === 'up' ? upMidi : downMidi);

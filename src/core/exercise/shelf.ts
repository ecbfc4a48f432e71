import { Exercise, KeyPlace, Step } from './types';

/** "1 3 5" in even notes of `beats`, the last held; "5~8" slides. */
function pattern(text: string, beats: number, last = 2 * beats): Step[] {
  const parts = text.split(' ');
  return parts.flatMap((part, p) => {
    const degrees = part.split('~').map(Number);
    return degrees.map((degree, d) => ({
      degree,
      beats: p === parts.length - 1 && d === degrees.length - 1 ? last : beats,
      ...(d < degrees.length - 1 ? { slide: true } : {}),
    }));
  });
}

const top = (anchor: KeyPlace['anchor'], semitones: number): KeyPlace => ({ edge: 'top', anchor, semitones });
const bottom = (anchor: KeyPlace['anchor'], semitones: number): KeyPlace => ({ edge: 'bottom', anchor, semitones });

const EASY = 'Only as loud as it stays connected. Stop if it scratches.';

/** The shelf: patterns, keys and doses as teachers commonly give them (common practice, no source). */
export const SHELF: Exercise[] = [
  {
    id: 'five-note-warm-up', name: 'Five notes up and down', family: 'scale', role: 'warm-up', grade: 1, weight: 0,
    steps: pattern('1 2 3 4 5 4 3 2 1', 0.5), tempo: [90, 100, 120], sounds: ['oo', 'la', 'ah'],
    keys: { from: bottom('low', 4), to: top('change', -1) },
    suits: [], avoid: [], after: [], minutes: 2, timesADay: 2,
    how: 'Sing five notes up and down, easily, a semitone higher each time. Loose jaw, medium volume.',
    purpose: 'it wakes the middle of your voice before anything is asked of it', caution: EASY,
  },
  {
    id: 'trill-triad', name: 'Lip trill triad', family: 'straw', role: 'straw', grade: 1, weight: -1,
    steps: pattern('1 3 5 3 1', 0.5), tempo: [90, 100, 120], sounds: ['lip trill', 'tongue trill', 'ng'],
    keys: { from: bottom('low', 4), to: top('change', 4) },
    suits: ['pulled-chest', 'flip', 'uneven-loudness'], avoid: ['no-chest'], after: [], minutes: 2, timesADay: 3,
    how: 'Let the lips flutter through a small chord up and down. Keep the flutter going across every note.',
    purpose: 'the flutter takes weight off, so the voice crosses without being held', caution: 'If the flutter stops you are pressing: softer, more air.',
  },
  {
    id: 'straw-slide', name: 'Straw slide, low to high', family: 'straw', role: 'straw', grade: 1, weight: -1,
    steps: pattern('1~5~1', 2, 1), tempo: [60, 76, 90], sounds: ['straw', 'hum', 'ng'],
    keys: { from: bottom('low', 5), to: top('change', 5) },
    suits: ['pulled-chest', 'weak-first-head', 'toggle', 'flip'], avoid: [], after: [], minutes: 1.5, timesADay: 4,
    how: 'Hum a slow slide through the straw, up a fifth and back. Lighter than you sing; no air beside the straw or through the nose.',
    purpose: 'the back pressure of the straw holds the voice in an easy setting while it slides through the change', caution: 'Your own clean straw. Stop if you get dizzy.',
  },
  {
    id: 'straw-top-down', name: 'Straw arpeggio from the top', family: 'straw', role: 'straw', grade: 2, weight: -1,
    steps: pattern('8 5 3 1', 1), tempo: [72, 84, 100], sounds: ['straw', 'oo'],
    keys: { from: top('change', 2), to: top('change', 7) },
    suits: ['pulled-chest', 'weak-first-head', 'blended'], avoid: [], after: ['straw-slide'], minutes: 1.5, timesADay: 3,
    how: 'Start lightly at the top through the straw and come down the chord. Keep the top feeling all the way down.',
    purpose: 'starting from above brings the light setting down across the change', caution: 'Your own clean straw. Stop if you get dizzy.',
  },
  {
    id: 'long-siren', name: 'Long siren', family: 'siren', role: 'work', grade: 2, weight: 0,
    steps: pattern('1~8~1', 4, 1), tempo: [72, 80, 96], sounds: ['oo', 'wee', 'ng'],
    keys: { from: bottom('change', -9), to: bottom('change', -5) },
    suits: ['flip', 'toggle', 'blended', 'uneven-loudness'], avoid: [], after: [], minutes: 2, timesADay: 3,
    how: 'One unbroken slide up an octave and back, about three seconds each way. Pass through the change, never stand on it.',
    purpose: 'a slow slide teaches the voice to hand over while it keeps sounding', caution: 'A crack is only information. Keep the sound going.',
  },
  {
    id: 'falling-siren', name: 'Octave leap, slide down', family: 'siren', role: 'work', grade: 2, weight: -1,
    steps: pattern('1 8~1', 1.5, 1), tempo: [66, 76, 88], sounds: ['hoo', 'oo', 'wee'],
    keys: { from: top('change', 2), to: top('change', 6) },
    suits: ['pulled-chest', 'flip', 'weak-first-head'], avoid: [], after: [], minutes: 1.5, timesADay: 3,
    how: 'Touch the low note, leap lightly to the octave, then slide all the way down. Let the top stay small.',
    purpose: 'coming from above, head voice leads and chest can join late', caution: EASY,
  },
  {
    id: 'one-way-slide', name: 'One-way slide', family: 'siren', role: 'work', grade: 2, weight: -1,
    steps: pattern('1~5 5 4 3 2 1', 1), tempo: [76, 88, 100], sounds: ['wee', 'oo', 'oh'],
    keys: { from: top('change', 1), to: top('change', 5) },
    suits: ['flip', 'pulled-chest'], avoid: ['no-chest'], after: [], minutes: 1.5, timesADay: 3,
    how: 'Slide up a fifth. Once the voice has tipped over, stay in that sound all the way down the scale.',
    purpose: 'it lets the light side of the change reach lower, so the jump grows smaller', caution: EASY,
  },
  {
    id: 'narrow-slide', name: 'Narrow slide around the change', family: 'siren', role: 'work', grade: 4, weight: 0,
    steps: pattern('1~4~1', 2, 1), tempo: [66, 76, 84], sounds: ['oo', 'oh', 'ah'],
    keys: { from: bottom('change', -3), to: bottom('change', -1) },
    suits: ['toggle', 'blended'], avoid: ['pulled-chest'], after: ['long-siren'], minutes: 1, timesADay: 3,
    how: 'A small slide up and back across your change, slow and even, like smoothing a crease.',
    purpose: 'it works on exactly the notes where your sound changes, a few semitones each side', caution: 'Only when the long siren is comfortable. Do not stop on the change.',
  },
  {
    id: 'release-siren', name: 'Release siren', family: 'siren', role: 'work', grade: 2, weight: -1,
    steps: pattern('1~8~1', 3, 1), tempo: [72, 80, 96], sounds: ['breathy oo', 'hoo', 'oo'],
    keys: { from: bottom('change', -11), to: bottom('change', -6) },
    suits: ['pulled-chest'], avoid: ['no-chest', 'weak-first-head'], after: [], minutes: 1.5, timesADay: 4,
    how: 'Slide up an octave and let the tone go a little breathy on the way, both up and down. Never louder as you rise.',
    purpose: 'for some weeks the squeeze has to unlearn itself; breath on the way through lets it', caution: 'A scratch going up means chest is being pulled: lighter, or leave it for today.',
  },
  {
    id: 'loud-soft-triad', name: 'Loud to soft triad', family: 'scale', role: 'work', grade: 3, weight: -1,
    steps: pattern('1 3 5', 1, 3), tempo: [72, 84, 96], sounds: ['oh', 'oo', 'ah'],
    keys: { from: top('change', -2), to: top('change', 4) },
    suits: ['pulled-chest', 'toggle', 'uneven-loudness'], avoid: ['no-chest'], after: [], minutes: 1.5, timesADay: 2,
    how: 'First note loud, second medium, third soft and held. Higher is softer, on purpose.',
    purpose: 'getting softer as you climb thins the edge of chest in time for the change', caution: EASY,
  },
  {
    id: 'toggle-flip', name: 'Chest and head side by side', family: 'toggle', role: 'work', grade: 2, weight: 0,
    steps: pattern('1 2 1 2 1', 1), tempo: [66, 76, 96], sounds: ['yoo-hoo', 'oh', 'ah'],
    keys: { from: bottom('change', -2), to: bottom('change', 1) },
    suits: ['toggle', 'flip', 'blended'], avoid: [], after: [], minutes: 1, timesADay: 2,
    how: 'Low note in chest, upper note in head, and make the switch obvious. Then the same, lighter on both sides.',
    purpose: 'feeling both sides clearly is the first step to making the step between them small', caution: 'Easy volume on both sides.',
  },
  {
    id: 'five-from-top', name: 'Five notes from the top', family: 'scale', role: 'work', grade: 3, weight: -1,
    steps: pattern('5 4 3 2 1', 1), tempo: [84, 96, 112], sounds: ['hoo', 'oo', 'oh'],
    keys: { from: top('change', 5), to: top('change', 2) },
    suits: ['pulled-chest', 'weak-first-head', 'toggle'], avoid: [], after: [], minutes: 1.5, timesADay: 3,
    how: 'Begin above the change on a small, clear sound and walk down five notes without letting it thicken.',
    purpose: 'what is easy above is carried down across the change', caution: EASY,
  },
  {
    id: 'first-head-hold', name: 'First head notes, held', family: 'hold', role: 'work', grade: 3, weight: 1,
    steps: [{ degree: 1, beats: 4 }], tempo: [60, 66, 76], sounds: ['hoo', 'oo', 'yeh'],
    keys: { from: bottom('change', 3), to: bottom('change', 0) },
    suits: ['weak-first-head', 'flip'], avoid: [], after: [], minutes: 1.5, timesADay: 3,
    how: 'Three semitones above the change: start small, hold, let it grow a little and die away. Then a semitone lower.',
    purpose: 'it gives the first notes of head voice a core, from above downward', caution: 'Grow only as far as it stays head voice.',
  },
  {
    id: 'bratty-five', name: 'Bratty five notes', family: 'scale', role: 'work', grade: 3, weight: 1,
    steps: pattern('1 2 3 4 5 4 3 2 1', 0.5), tempo: [90, 104, 120], sounds: ['nyeh', 'nay', 'ya'],
    keys: { from: bottom('low', 5), to: top('change', 1) },
    suits: ['no-chest', 'weak-first-head'], avoid: ['pulled-chest'], after: [], minutes: 1.5, timesADay: 3,
    how: 'Five notes up and down on a cheeky, bright sound. No louder than before: bright, not big.',
    purpose: 'the bright sound brings the folds together and builds core where the voice is thin', caution: 'No more volume than the plain scale. Stop if it scratches.',
  },
  {
    id: 'low-chest-phrase', name: 'Low phrase, spoken then sung', family: 'scale', role: 'work', grade: 1, weight: 1,
    steps: pattern('3 2 1 2 1', 1), tempo: [72, 84, 96], sounds: ['ah', 'ya', 'no'],
    keys: { from: bottom('low', 3), to: top('low', 13) },
    suits: ['no-chest'], avoid: ['pulled-chest'], after: [], minutes: 1.5, timesADay: 3,
    how: 'Say it firmly, then sing it just as plainly, all in chest. A semitone higher each time.',
    purpose: 'chest is built low, from speech, where it is safe', caution: 'Speech volume. Stop well before it feels like shouting.',
  },
  {
    id: 'octave-arpeggio', name: 'Octave arpeggio', family: 'scale', role: 'work', grade: 4, weight: 0,
    steps: pattern('1 3 5 8 5 3 1', 0.5), tempo: [88, 100, 116], sounds: ['oo', 'oh', 'ah'],
    keys: { from: top('change', 3), to: top('change', 7) },
    suits: ['blended', 'uneven-loudness'], avoid: ['pulled-chest'], after: ['long-siren'], minutes: 1.5, timesADay: 2,
    how: 'Up the chord to the octave and back, each note as present as the last.',
    purpose: 'leaps across the change are the next rung once slides are smooth', caution: EASY,
  },
  {
    id: 'nine-note', name: 'Nine-note scale', family: 'scale', role: 'work', grade: 5, weight: 0,
    steps: pattern('1 2 3 4 5 6 7 8 9 8 7 6 5 4 3 2 1', 0.5), tempo: [96, 112, 132], sounds: ['oh', 'la', 'ah'],
    keys: { from: top('change', 4), to: top('change', 8) },
    suits: ['blended'], avoid: ['pulled-chest', 'flip'], after: ['octave-arpeggio'], minutes: 1.5, timesADay: 2,
    how: 'A long scale to the ninth and back in one breath, quick and even.',
    purpose: 'nobody can say where your voice changes, so the grade rises: longer, faster, opener', caution: EASY,
  },
  {
    id: 'seamless-siren', name: 'Seamless siren on "ah"', family: 'siren', role: 'test', grade: 6, weight: 0,
    steps: pattern('1~8~1', 4, 1), tempo: [72, 80, 96], sounds: ['ah'],
    keys: { from: bottom('change', -7), to: bottom('change', -5) },
    suits: [], avoid: [], after: ['long-siren'], minutes: 0.5, timesADay: 1,
    how: 'One slide up and back on "ah". Listen for where it changes; do not repair it, just notice.',
    purpose: '"ah" is the hardest vowel to cross on, so it shows how far the work has come', caution: 'Once a day is enough.',
  },
];

const byId = new Map(SHELF.map((e) => [e.id, e]));

/** An exercise of the shelf. @throws RangeError for an unknown id. */
export function exerciseById(id: string): Exercise {
  const exercise = byId.get(id);
  if (!exercise) throw new RangeError(`There is no exercise "${id}" on the shelf.`);
  return exercise;
}

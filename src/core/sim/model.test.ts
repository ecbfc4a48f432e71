import { exerciseById } from '../exercise/shelf';
import { hearExercise } from '../judge/hear';
import { patternSpan } from '../exercise/pattern';
import type { Manner } from '../exercise/model';
import type { FindingName } from '../map/types';
import { expectedChange, VOICE_TYPES } from '../plan/voice-types';
import { DEMO_SONGS } from '../song/demo-songs';
import { phrasesOf } from '../song/phrases';
import { Way, WAYS } from '../song/ways';
import type { SongVoice } from '../song/voice';
import { simulatedModel, simulatedPhrase } from './model';
import type { SimTask } from './score';
import { sing } from './sing';

/** One key of an exercise whose middle lies on the change of a voice. */
function across(id: string, type: (typeof VOICE_TYPES)[number]['id'], findings: FindingName[] = [], changeMidi = expectedChange(type)) {
  const exercise = exerciseById(id);
  const { top, bottom } = patternSpan(exercise);
  const key = Math.round(changeMidi - (top + bottom) / 2);
  const asked = { exercise, key, tempo: exercise.tempo[1], sound: 'ah' };
  const model = (manner: 'like-this' | 'not-like-this') => simulatedModel(asked, { type, changeMidi, findings }, manner);
  const judged = (manner: 'like-this' | 'not-like-this') => {
    const { profile, task, options } = model(manner)!;
    const { pcm } = sing(profile, task, options);
    return hearExercise(pcm, { exercise, sound: 'ah', keys: [key], tempo: asked.tempo, alone: true }, { changeMidi, handsOver: null })
      .judgement;
  };
  return { model, judged };
}

test.each(VOICE_TYPES.map((t) => t.id))('in a %s’s place: what should be is judged so, what should not is not', (type) => {
  const { judged } = across('five-note-ah', type);
  expect(judged('like-this')).toMatchObject({ verdict: 'yes' });
  expect(judged('not-like-this')).toMatchObject({ verdict: 'not yet', because: { fault: 'leapt' } });
});

test('what it should not do is what the map finds in this voice, at this voice’s change', () => {
  expect(across('long-siren', 'tenor', ['pulled-chest']).model('not-like-this')!.profile.crossings[0].style).toBe('pulled');
  expect(across('long-siren', 'tenor', ['no-chest', 'toggle']).model('not-like-this')!.profile.crossings[0].style).toBe('toggle');
  const moved = across('long-siren', 'tenor', [], 61).model('like-this')!.profile.crossings[0];
  expect([moved.upMidi, moved.style]).toEqual([61, 'blend']);
});

test('it shows nothing where there is nothing to hear: through straws, breaks made on purpose, keys that stay in one register', () => {
  const voice = { type: 'tenor' as const, changeMidi: 64, findings: [] };
  const of = (id: string, sound: string, key: number, manner: 'like-this' | 'not-like-this') => {
    const exercise = exerciseById(id);
    return simulatedModel({ exercise, key, tempo: exercise.tempo[1], sound }, voice, manner);
  };
  expect(of('straw-slide', 'straw', 57, 'like-this')).toBeNull();
  expect(of('toggle-flip', 'ah', 60, 'like-this')).toBeNull();
  expect(of('five-note-ah', 'ah', 50, 'not-like-this')).toBeNull();
  expect(of('five-note-ah', 'ah', 50, 'like-this')).not.toBeNull();
  // A key under or over what such voices have is sung all the same.
  expect(of('five-note-ah', 'ah', 40, 'like-this')!.profile.lowMidi).toBeLessThan(40);
});

describe('a phrase of a song in a voice’s place', () => {
  const [song] = DEMO_SONGS;
  const [phrase] = phrasesOf(song);
  const sung = song.notes.slice(phrase.first, phrase.last + 1).map((n) => n.midi);
  const top = Math.max(...sung);
  /** A tenor's voice with changes there, and findings so sure. */
  const voice = (ups: number[], findings: Partial<Record<FindingName, number>> = {}) => ({
    type: 'tenor' as const,
    voice: {
      changes: ups.map((up) => ({ up })),
      findings: Object.fromEntries(Object.entries(findings).map(([name, confidence]) => [name, { confidence }])),
    } as unknown as SongVoice,
  });
  const of = (semitones: number, way: Way | null, of: ReturnType<typeof voice>, manner: Manner) =>
    simulatedPhrase({ song, phrase, semitones, way }, of, manner);

  test('it is sung in the key, note by note, at the change nearest to its highest note', () => {
    const model = of(-2, null, voice([top - 14, top - 3, top + 9]), 'like-this')!;
    expect(model.profile.crossings[0]).toMatchObject({ upMidi: top - 3, style: 'blend' });
    const { keys } = model.task as Extract<SimTask, { kind: 'exercise' }>;
    expect(keys).toHaveLength(1);
    expect(keys[0].notes.map((n) => n.midi)).toEqual(sung.map((midi) => midi - 2));
    expect(keys[0].notes[0].startS).toBe(0);
  });

  test('what it should not do is what the map is surest of, and nothing where the phrase stays in one register', () => {
    const manner = 'not-like-this';
    const found = voice([top - 3], { toggle: 0.5, 'pulled-chest': 0.8 });
    expect(of(0, 'mix', found, manner)!.profile.crossings[0].style).toBe('pulled');
    expect(of(-6, 'mix', found, manner)).toBeNull();
    expect(of(-6, 'mix', found, 'like-this')).not.toBeNull();
  });

  test('the simulated singer joins: where the coach wants chest, head or falsetto, or nobody knows the change, it is silent', () => {
    for (const way of WAYS) expect([way, of(0, way, voice([top - 3]), 'like-this') !== null]).toEqual([way, way === 'mix']);
    expect(of(0, null, voice([]), 'like-this')).toBeNull();
  });
});

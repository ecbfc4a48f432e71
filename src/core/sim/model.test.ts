import { exerciseById } from '../exercise/shelf';
import { hearExercise } from '../judge/hear';
import { patternSpan } from '../exercise/pattern';
import type { FindingName } from '../map/types';
import { expectedChange, VOICE_TYPES } from '../plan/voice-types';
import { simulatedModel } from './model';
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

import { Model, modelsOf } from './model';

const model = (id: string, manner: Model['manner'], singerId: string | null = null, exerciseId = 'fives'): Model => ({
  id,
  exerciseId,
  manner,
  singerId,
});

test('a singer hears what was made for them before what was made for all, and nothing of another’s', () => {
  const all = [
    model('all', 'like-this'),
    model('mine', 'like-this', 'me'),
    model('theirs', 'not-like-this', 'you'),
    model('other', 'not-like-this', null, 'siren'),
  ];
  expect(modelsOf(all, 'fives', 'me')).toEqual({ 'like-this': all[1] });
  expect(modelsOf(all, 'fives', 'you')).toEqual({ 'like-this': all[0], 'not-like-this': all[2] });
  expect(modelsOf([...all].reverse(), 'fives', 'me')['like-this']?.id).toBe('mine');
  expect(modelsOf(all, 'fives', null)).toEqual({ 'like-this': all[0] });
  expect(modelsOf([], 'fives', 'me')).toEqual({});
});

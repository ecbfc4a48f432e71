import { Before, Done, Entry } from './types';

/** For tests: a line of a log on a day, as it is written at nine in the morning. */
export const lineOn = (day: string, what: Entry['what']): Entry => ({
  id: crypto.randomUUID(),
  assignmentId: null,
  day,
  at: `${day}T09:00:00.000Z`,
  what,
});

/** For tests: nothing wrong before singing, but for what is said. */
export const before = (more: Partial<Before> = {}): Before => ({
  kind: 'before',
  hoarse: false,
  ill: false,
  pain: false,
  tired: false,
  ...more,
});

/** For tests: an exercise sung easily for a minute, unjudged, but for what is said. */
export const done = (more: Partial<Done> = {}): Done => ({
  kind: 'item',
  exerciseId: 'falling-siren',
  name: 'x',
  sound: 'oo',
  tempo: 80,
  keys: [60],
  seconds: 60,
  load: null,
  success: null,
  effort: 2,
  signs: [],
  byHand: false,
  ...more,
});

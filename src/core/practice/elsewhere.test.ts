import { EntryShape } from '../format/practice';
import { logOfVoice, VoiceFile } from '../format/voice-file';
import { dayLater } from '../plan/days';
import { asItStands, elsewhereInWords, otherSinging } from './elsewhere';
import { noticesOf, returnShare, saidToday } from './health';
import { daysOf } from './log';
import { lineOn } from './made-log';
import { standing } from './standing';
import type { ElsewhereId, Entry } from './types';
import { inEnglish } from '../format/say';

const DAY = '2026-11-28';
const told = (where: ElsewhereId, minutes: number, day = DAY): Entry => lineOn(day, { kind: 'elsewhere', where, minutes });

test('what the voice did elsewhere takes from practice: a little nothing, more half, much all but what eases it; the day after as well', () => {
  expect(otherSinging([], DAY)).toBeNull();
  expect(otherSinging([told('choir', 30)], DAY)).toBeNull();
  expect(otherSinging([told('rehearsal', 60)], DAY)).toMatchObject({ share: 0.5, light: false });
  // Two that are little each are much together; teaching asks less of a voice than a show as long.
  expect(otherSinging([told('rehearsal', 60), told('lesson', 45)], DAY)).toMatchObject({ share: 0.5, light: true });
  expect(otherSinging([told('show', 90)], DAY)).toMatchObject({ light: true });
  expect(otherSinging([told('teaching', 90)], DAY)).toMatchObject({ light: false });
  const tomorrow = dayLater(DAY, 1);
  expect(otherSinging([told('show', 120)], tomorrow)).toMatchObject({ share: 0.7, light: true });
  expect(otherSinging([told('choir', 60)], tomorrow)).toBeNull();
  expect(otherSinging([told('show', 120)], dayLater(DAY, 2))).toBeNull();
});

test('more of it never leaves more to practise', () => {
  const shares = [15, 30, 45, 60, 90, 120, 240].map((m) => otherSinging([told('rehearsal', m)], DAY));
  for (let i = 1; i < shares.length; i++) {
    expect(shares[i]?.share ?? 1).toBeLessThanOrEqual(shares[i - 1]?.share ?? 1);
    if (shares[i - 1]?.light) expect(shares[i]?.light).toBe(true);
  }
});

test('it is no practice, no answer about health and no stop; in the log it stands as what it was', () => {
  const log = [told('choir', 90)];
  expect(daysOf(log)).toEqual([{ day: DAY, minutes: 0, items: 0, elsewhere: 90, load: { voicedS: 0, cycles: 0 }, trouble: false }]);
  expect([saidToday(log, DAY), returnShare(log, dayLater(DAY, 1)), noticesOf(log, DAY, { professional: true, daysToShow: 3 })]).toEqual([
    [],
    1,
    [],
  ]);
  expect(standing(log, DAY)).toMatchObject({ stopped: null, lighter: null, asked: false });
  expect(inEnglish(elsewhereInWords({ kind: 'elsewhere', where: 'teaching', minutes: 45 }))).toBe('teaching, or long talking, 45 min');
});

test('told by mistake it stands no more, wherever it was sent first; nothing else can be unsaid by it', () => {
  const [choir, show] = [told('choir', 90), told('show', 120)];
  const mistake = lineOn(DAY, { kind: 'elsewhere', where: 'show', minutes: 0, instead: show.id });
  expect(asItStands([choir, show, mistake])).toEqual([choir]);
  expect(asItStands([mistake, show, choir])).toEqual([choir]);
  const less = lineOn(DAY, { kind: 'elsewhere', where: 'show', minutes: 30, instead: show.id });
  expect(asItStands([show, less])).toEqual([less]);
  const pain = lineOn(DAY, { kind: 'before', hoarse: false, ill: false, pain: true, tired: false });
  expect(asItStands([pain, { ...mistake, what: { kind: 'elsewhere', where: 'show', minutes: 0, instead: pain.id } }])).toEqual([pain]);
  expect(EntryShape.parse(mistake)).toEqual(mistake);
});

test('a line of it is taken as it is sent, and from a voice file; what is no such line is refused', () => {
  const line = told('show', 120);
  expect(EntryShape.parse(line)).toEqual(line);
  for (const what of [
    { kind: 'elsewhere', where: 'shower', minutes: 5 },
    { kind: 'elsewhere', where: 'show', minutes: 0 },
    { kind: 'elsewhere', where: 'show', minutes: 1e6 },
  ])
    expect(EntryShape.safeParse({ ...line, what }).success).toBe(false);
  const voice = VoiceFile.parse({ range: { touched: { low: 48, high: 72 } }, log: [{ day: DAY, elsewhere: 'choir', minutes: 90 }] });
  expect(logOfVoice(voice)[0].what).toEqual({ kind: 'elsewhere', where: 'choir', minutes: 90 });
});

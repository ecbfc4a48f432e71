// Fills an empty studio with the demo: the company of a travelling puppet opera, eight weeks of recordings.
import type { Id } from '../core/format/id';
import { CAST, CastMember, recordedInCabin } from '../core/sim/cast';
import { SimTask } from '../core/sim/score';
import { Vowel } from '../core/sim/tract';
import { auditOf } from '../data/audit';
import { inStudio, pool, StudioTx, studioIds } from '../data/client';
import { poolOne } from '../studio/pooling';
import { HABITS, seedPractice } from './seed-practice';
import { seedSongs } from './seed-songs';
import { storeTake, voiceAt } from './seed-take';
import { insertSinger, listSingers } from '../data/singers';

const SESSIONS_WEEKS_AGO = [8, 5, 3, 1];
const DAY_MS = 86_400_000;
const FIVE_NOTES = [1, 2, 3, 4, 5, 4, 3, 2, 1];

/** What is recorded on a day, and on which vowel; counting aloud once, in the first. */
const RECORDED: readonly (readonly [task: 'siren' | 'scale' | 'speech', vowel: Vowel])[] = [
  ['speech', 'ah'],
  ['siren', 'ah'],
  ['siren', 'ah'],
  ['siren', 'oo'],
  ['scale', 'ah'],
];

async function seedTake(
  tx: StudioTx,
  singerId: Id<'singer'>,
  member: CastMember,
  progress: number,
  [kind, vowel]: (typeof RECORDED)[number],
  recordedAt: Date,
  seed: number,
) {
  const profile = voiceAt(member, progress);
  const middle = Math.round(profile.lowMidi + 6);
  const task: SimTask = {
    siren: { kind: 'siren' as const, sirens: 1 },
    scale: { kind: 'pattern' as const, degrees: FIVE_NOTES, tonics: [middle, middle + 3, middle + 6], noteS: 0.55 },
    speech: { kind: 'speech' as const, words: 10 },
  }[kind];
  await storeTake(tx, recordedInCabin(profile, task, seed, vowel), {
    singerId,
    task: kind,
    vowel: kind === 'speech' ? '' : vowel,
    asked: null,
    recordedAt,
  });
}

async function main() {
  const [studioId] = await studioIds();
  await inStudio(studioId, async (tx) => {
    // A studio that was emptied by hand has a log of it, and stays empty.
    if ((await auditOf(tx)).length > 0 || (await listSingers(tx)).length > 0) return;
    const started = Date.now();
    let takes = 0;
    for (const [m, member] of CAST.entries()) {
      const singerId = await insertSinger(tx, {
        name: member.name,
        part: member.part,
        voiceType: member.voiceType,
        note: member.note,
        school: null,
        email: null,
        intake: { consent: 'singer', minor: false, goals: '', health: member.health ?? '' },
      });
      for (const [s, weeks] of SESSIONS_WEEKS_AGO.entries()) {
        const day = Math.floor(started / DAY_MS) * DAY_MS - weeks * 7 * DAY_MS + m * DAY_MS + 15 * 3_600_000;
        const recorded = RECORDED.filter(([task]) => (task === 'speech' ? s === 0 : task === 'siren' || s % 2 === 0));
        for (const [k, take] of recorded.entries()) {
          await seedTake(
            tx,
            singerId,
            member,
            s / (SESSIONS_WEEKS_AGO.length - 1),
            take,
            new Date(Math.min(started, day + k * 180_000)),
            1000 * m + 10 * s + k,
          );
          takes++;
        }
      }
      const habit = HABITS[member.name];
      if (habit) await seedPractice(tx, singerId, member.voiceType, habit, 77 + m);
    }
    await seedSongs(tx, started);
    // So that the first look at the studio shows the voices.
    while (await poolOne({ tx, as: 'wendel', now: new Date() }));
    process.stderr.write(`Demo studio: ${CAST.length} singers, ${takes} takes in ${((Date.now() - started) / 1000).toFixed(0)} s.\n`);
  });
  await pool().end();
}

main().catch((error: Error) => {
  process.stderr.write(`The demo could not be made: ${error.message}\n`);
  process.exit(1);
});

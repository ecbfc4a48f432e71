import type { Id } from '../core/format/id';
import { addDays, format, startOfWeek, subWeeks } from 'date-fns';
import { randomUUID } from 'node:crypto';
import { exerciseById, SHELF } from '../core/exercise/shelf';
import { midiToHz } from '../core/music/pitch';
import { planFor } from '../core/plan/plan';
import { usualRequest, USUAL_TERMS } from '../core/plan/request';
import type { VoiceTypeId } from '../core/plan/voice-types';
import type { Entry } from '../core/practice/types';
import { seededRandom } from '../core/signal/stats';
import { insertAssignment } from '../data/assignments';
import type { StudioTx } from '../data/client';
import { savePlanning } from '../data/plans';
import { addPractice } from '../data/practice';
import { poolNow } from '../studio/pooling';

/** How somebody of the demo's cast practises: the phase of each week up to this one, the share of days kept, and a sign told yesterday. */
interface Habit {
  phases: number[];
  keeps: number;
  scratchy?: boolean;
}

/** Two of the cast have worked for weeks, with gaps; the others wait for their first week. */
export const HABITS: Record<string, Habit> = {
  'Ysolde Marsh': { phases: [0, 0, 0, 0, 1, 1], keeps: 0.75 },
  'Bram Toller': { phases: [0, 0, 0], keeps: 0.5, scratchy: true },
};

const VOICED_SHARE = 0.4;
const dayOf = (date: Date) => format(date, 'yyyy-MM-dd');

/** Weeks as the planner suggests them for this voice, and a log of what was done of each. */
export async function seedPractice(
  tx: StudioTx,
  singerId: Id<'singer'>,
  voiceType: VoiceTypeId,
  habit: Habit,
  seed: number,
): Promise<void> {
  const random = seededRandom(seed);
  const map = await poolNow(tx, singerId);
  const today = dayOf(new Date());
  const yesterday = dayOf(addDays(new Date(), -1));
  const entries: Entry[] = [];
  for (const [w, phase] of habit.phases.entries()) {
    const monday = subWeeks(startOfWeek(new Date(), { weekStartsOn: 1 }), habit.phases.length - 1 - w);
    const plan = planFor(usualRequest({ map, voiceType, school: 'classical', shelf: SHELF, phase }));
    if (!plan) return;
    const items = plan.items.map((item) => ({ ...item, exercise: exerciseById(item.exerciseId) }));
    const stand = { phase: plan.phases[plan.phase].name, grades: plan.grades };
    const assignmentId = await insertAssignment(tx, { singerId, note: '', startsOn: dayOf(monday), items, stand });
    await tx.execute('update assignment set created_at = $1 where id = $2', [monday, assignmentId]);
    for (let d = 0; d < 7; d++) {
      const day = dayOf(addDays(monday, d));
      const told = habit.scratchy && day === yesterday;
      if (day >= today || (random() > habit.keeps && !told)) continue;
      for (const [i, item] of items.filter((it) => it.days.includes(d)).entries()) {
        const seconds = Math.round(60 * item.minutes * (0.7 + 0.4 * random()));
        const voicedS = Math.round(VOICED_SHARE * seconds);
        const middle = item.keys[Math.floor(item.keys.length / 2)] + 4;
        entries.push({
          id: randomUUID(),
          assignmentId,
          day,
          at: new Date(addDays(monday, d).getTime() + (17 * 60 + 6 * i) * 60_000).toISOString(),
          what: {
            kind: 'item',
            exerciseId: item.exerciseId,
            name: item.exercise.name,
            sound: item.sound,
            tempo: item.tempo,
            keys: item.keys,
            seconds,
            load: { voicedS, cycles: Math.round(voicedS * midiToHz(middle)) },
            // It comes to be easier.
            success: random() < 0.5 + (0.4 * w) / habit.phases.length,
            effort: 1 + Math.floor(3 * random()),
            signs: told && i === 2 ? ['scratch'] : [],
            byHand: false,
          },
        });
      }
    }
  }
  await addPractice(tx, singerId, entries);
  await savePlanning(tx, singerId, { terms: { ...USUAL_TERMS, phase: habit.phases[habit.phases.length - 1] } });
}

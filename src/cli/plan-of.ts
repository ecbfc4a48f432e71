import { exerciseById, SHELF } from '../core/exercise/shelf';
import { logOfVoice, mapOfVoice, VoiceFile } from '../core/format/voice-file';
import { planFor } from '../core/plan/plan';
import { propose } from '../core/plan/progress';
import { usualRequest } from '../core/plan/request';
import { daysToShow } from '../core/plan/dates';
import { roadOf } from '../core/plan/road';
import { ruleForToday } from '../core/plan/safety';
import { forToday } from '../core/plan/today';
import { PlanItem, PlanRequest } from '../core/plan/types';
import { noticesOf, returnShare } from '../core/practice/health';
import { practisedOf } from '../core/practice/log';

export const requestOf = (voice: VoiceFile): PlanRequest =>
  usualRequest({
    map: mapOfVoice(voice),
    voiceType: voice.person.voiceType,
    school: voice.school,
    shelf: SHELF,
    minutesADay: voice.minutesADay,
    materials: voice.materials,
    grades: voice.grades,
    ...(voice.phase ? { phaseId: voice.phase } : {}),
    age: voice.person.age,
    changing: voice.person.changing,
    intake: voice.person.intake,
    today: voice.today,
  });

/** As printed with --json; the schema is in docs/plan.schema.json. */
export function planJson(voice: VoiceFile) {
  const request = requestOf(voice);
  const plan = planFor(request);
  if (!plan) throw new Error('Nothing can be planned for a voice without a range.');
  const log = logOfVoice(voice);
  const rule = ruleForToday(voice.today);
  const share = rule ? 1 : returnShare(log, voice.day);
  const items = forToday(
    plan.items.filter((it) => it.days.includes(0)).map((it) => ({ ...it, exercise: exerciseById(it.exerciseId) })),
    voice.today,
    plan.anchors.change,
  );
  return {
    week: {
      anchors: plan.anchors,
      changeMeasured: plan.changeMeasured,
      worksOn: plan.worksOn,
      phase: plan.phases[plan.phase],
      phases: plan.phases.map(({ id, name, weeks, until }) => ({ id, name, weeks, until })),
      leftItsWay: plan.leftItsWay,
      grades: plan.grades,
      items: plan.items,
      leftOut: plan.leftOut,
      notes: plan.notes,
    },
    today: {
      day: voice.day,
      because: rule?.says ?? (share < 1 ? `On the way back: ${Math.round(share * 100)} % of the minutes today.` : null),
      share,
      items: items.map(({ exercise: _, ...it }): PlanItem => ({ ...it, minutes: it.minutes * share })),
    },
    notices: noticesOf(log, voice.day, { professional: voice.person.professional, daysToShow: daysToShow(voice.dates, voice.day) }),
    progress: Object.fromEntries(plan.items.map((it) => [it.exerciseId, propose(practisedOf(log, it.exerciseId), voice.day)])),
    road: roadOf({ plan: { ...request, today: null }, from: voice.day, weeks: voice.weeks, dates: voice.dates }),
  };
}

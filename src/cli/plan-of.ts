import { allInEnglish, inEnglish } from '../core/format/say';
import { exerciseById, SHELF } from '../core/exercise/shelf';
import { logOfVoice, mapOfVoice, VoiceFile } from '../core/format/voice-file';
import { occasionSet, occasionSets } from '../core/plan/occasions';
import { planFrom, planning } from '../core/plan/plan';
import { propose } from '../core/plan/progress';
import { usualRequest } from '../core/plan/request';
import { dayBent, daysToShow } from '../core/plan/dates';
import { roadOf } from '../core/plan/road';
import { ruleForToday } from '../core/plan/safety';
import { workOfDay } from '../core/practice/work-of-day';
import { PlanItem, PlanRequest } from '../core/plan/types';
import { askingOf, schoolsFor } from '../core/plan/which-school';
import { otherSinging } from '../core/practice/elsewhere';
import { noticesOf, returnShare } from '../core/practice/health';
import { gatesOf } from '../core/practice/gates';
import { readinessOn } from '../core/practice/readiness';
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
  const p = planning(request);
  if (!p) throw new Error('Nothing can be planned for a voice without a range.');
  const plan = planFrom(p);
  const log = logOfVoice(voice);
  const rule = ruleForToday(voice.today);
  const bent = dayBent(voice.day, voice.dates);
  const whole = (items: readonly PlanItem[]) => items.map((it) => ({ ...it, exercise: exerciseById(it.exerciseId) }));
  const work = workOfDay(
    whole(plan.items.filter((it) => it.days.includes(0))),
    bent?.set ? whole(occasionSet(bent.set, p)) : null,
    {
      today: voice.today,
      returning: returnShare(log, voice.day),
      bent,
      belted: false,
      readiness: readinessOn(log, voice.day),
      elsewhere: otherSinging(log, voice.day),
    },
    plan.anchors,
  );
  return allInEnglish({
    week: {
      anchors: plan.anchors,
      changeMeasured: plan.changeMeasured,
      worksOn: plan.worksOn,
      phase: plan.phases[plan.phase],
      gates: gatesOf(plan.phases[plan.phase], log),
      phases: plan.phases.map(({ id, name, weeks, until }) => ({ id, name, weeks, until })),
      leftItsWay: plan.leftItsWay,
      grades: plan.grades,
      items: plan.items,
      leftOut: plan.leftOut,
      notes: plan.notes,
    },
    today: {
      day: voice.day,
      because: [rule?.says ?? [], work.because].flat().map(inEnglish).join(' ') || null,
      share: work.share,
      items: work.items.map(({ exercise: _, ...it }): PlanItem => it),
    },
    schools: schoolsFor(askingOf(p, voice.person)),
    sets: occasionSets(p),
    notices: noticesOf(log, voice.day, { professional: voice.person.professional, daysToShow: daysToShow(voice.dates, voice.day) }),
    progress: Object.fromEntries(plan.items.map((it) => [it.exerciseId, propose(practisedOf(log, it.exerciseId), voice.day)])),
    road: roadOf({
      plan: { ...request, today: null },
      from: voice.day,
      weeks: voice.weeks,
      dates: voice.dates,
      phaseWeeks: voice.phaseWeeks,
      songs: voice.songs,
    }),
  });
}

import { inEnglish } from '../core/format/say';
import { exerciseById } from '../core/exercise/shelf';
import { VoiceFile } from '../core/format/voice-file';
import { planFor } from '../core/plan/plan';
import { roadText } from '../core/plan/road-text';
import { planText } from '../core/plan/text';
import { schoolById } from '../core/map/schools';
import { voiceType } from '../core/plan/voice-types';
import { planJson, requestOf } from './plan-of';

/** The week and the road of a described voice, in Markdown. */
export function examplePage(voice: VoiceFile): string {
  const name = (id: string) => exerciseById(id).name;
  const plan = planFor(requestOf(voice));
  if (!plan) throw new Error('Nothing can be planned for a voice without a range.');
  const { notices, today, road } = planJson(voice);
  return [
    `${voiceType(voice.person.voiceType).name}, taught as: ${schoolById(voice.school).name}.`,
    '',
    ...notices.map((n) => `**${inEnglish(n.says)}**\n`),
    ...(today.because ? [`Today: ${today.because}\n`] : []),
    planText(plan, { exercise: name, finding: (f) => f.replaceAll('-', ' ') }, inEnglish),
    roadText(road, name, inEnglish),
  ].join('\n');
}

// Writes docs/examples: for each singer of the demo's cast, as heard by the engine, the map and the plan made from it.
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { exerciseById, SHELF } from '../core/exercise/shelf';
import { mapVoice } from '../core/map/pool';
import { schoolById } from '../core/map/schools';
import { VoiceMap } from '../core/map/types';
import { expectedChange } from '../core/plan/voice-types';
import { usualRequest } from '../core/plan/request';
import { planFor } from '../core/plan/plan';
import { planText } from '../core/plan/text';
import { CAST, CastMember, recordedInCabin } from '../core/sim/cast';
import { SimTask } from '../core/sim/score';
import { analyseTake } from '../core/take/analyse';

const OUT = join(process.cwd(), 'docs/examples');
const SIRENS = 4;

/** A first listening in short: counting aloud, sirens and a scale, heard and pooled. What only points at recordings is left away. */
function listenTo({ profile, voiceType }: CastMember): VoiceMap {
  const middle = Math.round(profile.lowMidi + 6);
  const tasks: [SimTask, 'siren' | 'scale' | 'speech'][] = [
    [{ kind: 'speech', words: 10 }, 'speech'],
    ...Array.from({ length: SIRENS }, (): [SimTask, 'siren'] => [{ kind: 'siren', sirens: 1 }, 'siren']),
    [{ kind: 'pattern', degrees: [1, 2, 3, 4, 5, 4, 3, 2, 1], tonics: [middle, middle + 3, middle + 6], noteS: 0.55 }, 'scale'],
  ];
  const map = mapVoice(
    tasks.map(([task, kind], i) => {
      const pcm = recordedInCabin(profile, task, 100 + i);
      return { takeId: `take ${i + 1}`, findings: analyseTake(pcm, kind).findings, marks: [] };
    }),
    { expectedMidi: expectedChange(voiceType) },
  );
  return { ...map, passaggi: map.passaggi.map((p) => ({ ...p, votes: [] })), levels: [], blend: [], insecure: [] };
}

mkdirSync(OUT, { recursive: true });
for (const member of CAST) {
  const map = listenTo(member);
  const request = usualRequest({ map, voiceType: member.voiceType, shelf: SHELF, school: member.example });
  const plan = planFor(request);
  if (!plan) throw new Error(`${member.name} left no usable take.`);
  const file = member.name.toLowerCase().replace(/[^a-z]+/g, '-');
  writeFileSync(join(OUT, `${file}.json`), `${JSON.stringify({ voiceType: member.voiceType, school: member.example, map }, null, 1)}\n`);
  const school = schoolById(member.example).name;
  const text = planText(plan, { exercise: (id) => exerciseById(id).name, finding: (name) => name.replaceAll('-', ' ') });
  writeFileSync(join(OUT, `${file}.md`), `# ${member.name}, ${member.voiceType}\n\n${member.note} Taught as: ${school}.\n\n${text}`);
  process.stderr.write(`${file}: ${plan.worksOn.join(', ')}\n`);
}

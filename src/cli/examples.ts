// Writes docs/examples: singers of the demo's cast as the engine hears them, and two who are described; each as a voice file, with the
// week and the road of weeks made from it.
import { mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { VoiceFile } from '../core/format/voice-file';
import { mapVoice } from '../core/map/pool';
import { VoiceMap } from '../core/map/types';
import { expectedChange } from '../core/plan/voice-types';
import { CAST, CastMember, recordedInCabin } from '../core/sim/cast';
import { SimTask } from '../core/sim/score';
import { analyseTake } from '../core/take/analyse';
import { examplePage } from './example-page';

const OUT = join(process.cwd(), 'docs/examples');
const SIRENS = 4;
const TENTH = 10;

/** A first listening in short: counting aloud, sirens and a scale, heard and pooled. */
function listenTo({ profile, voiceType }: CastMember): VoiceMap {
  const middle = Math.round(profile.lowMidi + 6);
  const tasks: [SimTask, 'siren' | 'scale' | 'speech'][] = [
    [{ kind: 'speech', words: 10 }, 'speech'],
    ...Array.from({ length: SIRENS }, (): [SimTask, 'siren'] => [{ kind: 'siren', sirens: 1 }, 'siren']),
    [{ kind: 'pattern', degrees: [1, 2, 3, 4, 5, 4, 3, 2, 1], tonics: [middle, middle + 3, middle + 6], noteS: 0.55 }, 'scale'],
  ];
  return mapVoice(
    tasks.map(([task, kind], i) => {
      const pcm = recordedInCabin(profile, task, 100 + i);
      return { takeId: `take ${i + 1}`, findings: analyseTake(pcm, kind).findings, marks: [] };
    }),
    { expectedMidi: expectedChange(voiceType) },
  );
}

const tenth = (x: number) => Math.round(x * TENTH) / TENTH;
const ends = (of: VoiceMap['extreme']) => of && { low: tenth(of.low.midi), high: tenth(of.high.midi) };

/** A map as a voice file has it. */
const described = (map: VoiceMap, { voiceType, example }: CastMember) => ({
  range: { touched: ends(map.extreme)!, usable: ends(map.usable) },
  passaggi: map.passaggi.map((p) => ({
    up: p.upMidi === null ? null : tenth(p.upMidi),
    down: p.downMidi === null ? null : tenth(p.downMidi),
    name: p.name,
    confidence: tenth(p.confidence),
  })),
  findings: map.findings.map((f) => ({ name: f.name, midi: tenth(f.midi), confidence: tenth(f.confidence) })),
  speaking: map.speakingMidi === null ? null : tenth(map.speakingMidi),
  person: { voiceType },
  school: example,
});

/** Of the rest of the company, from the coach's notes. */
const DESCRIBED: Record<string, { note: string; voice: object }> = {
  'Pip Larrow': {
    note: 'The cabin boy, 13; the voice is changing. The coach works with what is comfortable.',
    voice: {
      range: { touched: { low: 'F3', high: 'D4' } },
      speaking: 'A3',
      person: { voiceType: 'baritone', age: '13-15', changing: true },
      school: 'classical',
      minutesADay: 10,
    },
  },
  'Hesper Quoyle': {
    note: 'Sang the villainesses for forty years; sings in five weeks at the lock-keepers’ fair.',
    voice: {
      range: { touched: { low: 'E3', high: 'E5' }, usable: { low: 'F3', high: 'C5' } },
      passaggi: [{ up: 'G4', down: 'F4', name: 'toggle' }],
      findings: [{ name: 'toggle', midi: 'G4' }],
      speaking: 'G3',
      person: { voiceType: 'contralto', age: 'older', professional: true },
      school: 'covered',
      dates: [{ day: '2026-02-09', kind: 'show', name: 'the fair' }],
      weeks: 7,
    },
  },
};

mkdirSync(OUT, { recursive: true });
for (const old of readdirSync(OUT)) rmSync(join(OUT, old));
const write = (name: string, note: string, voice: object) => {
  const file = name.toLowerCase().replace(/[^a-z]+/g, '-');
  writeFileSync(join(OUT, `${file}.json`), `${JSON.stringify(voice, null, 1)}\n`);
  writeFileSync(join(OUT, `${file}.md`), `# ${name}\n\n${note}\n\n${examplePage(VoiceFile.parse(voice))}`);
  process.stderr.write(`${file}\n`);
};
for (const member of CAST) write(member.name, member.note, described(listenTo(member), member));
for (const [name, { note, voice }] of Object.entries(DESCRIBED)) write(name, note, voice);

import { z } from 'zod';
import { MATERIALS, STRANDS } from '../exercise/types';
import { VERDICTS } from '../judge/types';
import { SCHOOL_IDS } from '../map/schools';
import { CrossingName, FINDING_NAMES, PIN_NAMES, VoiceMap } from '../map/types';
import { withPins } from '../map/pins';
import { parseNote } from '../music/pitch';
import { AGES } from '../plan/ages';
import { DateShape, PhaseWeeksShape } from './plan';
import { SongTitle } from './song';
import { ANSWERS, INTAKE_QUESTIONS } from '../plan/intake';
import { USUAL_MINUTES } from '../plan/request';
import { SIGNS } from '../plan/safety';
import { VOICE_TYPES } from '../plan/voice-types';
import { STYLES, WISHES } from '../plan/which-school';
import { ELSEWHERE_IDS, Entry, MOST_ELSEWHERE_MIN, successOf } from '../practice/types';
import { CHECKED } from '../practice/voice-check';

/** A note as MIDI (60, 60.5) or by name ("C4", "Bb3"). */
const Note = z
  .union([z.number().min(20).max(110), z.string().max(6)])
  .transform((given, ctx) => {
    if (typeof given === 'number') return given;
    try {
      return parseNote(given);
    } catch (error) {
      ctx.addIssue({ code: 'custom', message: (error as Error).message });
      return z.NEVER;
    }
  })
  .describe('A note: MIDI (60, fractions allowed) or its name ("C4", "Bb3")');
const Ends = z.object({ low: Note, high: Note });
const Share = z.number().min(0).max(1);

const Person = z.object({
  voiceType: z.enum(VOICE_TYPES.map((t) => t.id)).default('mezzo'),
  age: z.enum(AGES).default('adult'),
  changing: z.boolean().default(false).describe('A changing voice'),
  professional: z.boolean().default(false).describe('Lives by the voice'),
  style: z.enum(STYLES).optional().describe('What they sing'),
  wish: z.enum(WISHES).optional().describe('What they want most from their voice'),
  intake: z
    .partialRecord(z.enum(INTAKE_QUESTIONS.map((q) => q.id)), z.enum(ANSWERS))
    .default({})
    .describe('Answers of the intake'),
});

const LogLine = z.union([
  z.object({
    day: z.iso.date(),
    hoarse: z.boolean().default(false),
    ill: z.boolean().default(false),
    pain: z.boolean().default(false),
    tired: z.boolean().default(false),
    exercise: z.undefined().optional(),
  }),
  z.object({
    day: z.iso.date(),
    exercise: z.string().max(60).describe('The exercise, by its id'),
    verdict: z.enum(VERDICTS).default('not told'),
    effort: z.number().int().min(0).max(10).nullable().default(null),
    signs: z.array(z.enum(SIGNS)).default([]),
    minutes: z.number().min(0).max(240).default(1),
  }),
]);

const ElsewhereLine = z
  .object({
    day: z.iso.date(),
    elsewhere: z.enum(ELSEWHERE_IDS),
    minutes: z.number().int().min(1).max(MOST_ELSEWHERE_MIN),
  })
  .describe('Singing or long talking that isn’t practice');

const CheckLine = z
  .object({
    day: z.iso.date(),
    soft: Note.describe('The note that was asked for softly'),
    sounded: z.boolean().default(true),
    warm: z.boolean().default(false),
    check: z
      .partialRecord(z.enum(CHECKED.map((c) => c.id)), z.number())
      .describe(
        CHECKED.map((c) => `${c.id}: ${c.name.toLowerCase()}${c.unit ? `, ${c.unit === 'note' ? 'MIDI' : c.unit}` : ''}`).join('; '),
      ),
  })
  .describe('A one-minute check of the voice');

/** A voice described by its map, for the command line (docs/voice.schema.json). Everything but the range may be left out. */
export const VoiceFile = z.object({
  range: z.object({
    touched: Ends.describe('Lowest and highest note ever sung'),
    usable: Ends.nullable().default(null).describe('Held comfortably; null: not known'),
  }),
  passaggi: z
    .array(
      z.object({
        up: Note.nullable().default(null).describe('Last note before the change, going up'),
        down: Note.nullable().default(null).describe('Last note before the change, coming down'),
        name: z.enum(['flip', 'toggle', 'blended'] satisfies CrossingName[]),
        confidence: Share.default(0.9),
      }),
    )
    .max(4)
    .default([]),
  findings: z.array(z.object({ name: z.enum(FINDING_NAMES), midi: Note, confidence: Share.default(0.9) })).default([]),
  speaking: Note.nullable().default(null).describe('Speaking pitch'),
  pins: z.partialRecord(z.enum(PIN_NAMES), Note).default({}).describe('What the coach has set by hand; it goes before everything'),
  person: Person.prefault({}),
  school: z.enum(SCHOOL_IDS).default('classical'),
  goals: z.string().max(2000).default(''),
  minutesADay: z.number().int().min(5).max(60).default(USUAL_MINUTES),
  materials: z.array(z.enum(MATERIALS)).default([...MATERIALS]),
  grades: z.partialRecord(z.enum(STRANDS), z.number().int().min(1).max(6)).default({}).describe('Grades the coach has confirmed'),
  phase: z.string().max(40).nullable().default(null).describe('The phase the singer is in, by its id; null: the first'),
  day: z.iso.date().default('2026-01-05').describe('Today, the first day of the road'),
  today: z
    .object({ hoarse: z.boolean().default(false), ill: z.boolean().default(false), pain: z.boolean().default(false) })
    .nullable()
    .default(null)
    .describe('How the voice is today; null: not asked'),
  log: z
    .array(z.union([CheckLine, ElsewhereLine, LogLine]))
    .max(5000)
    .default([])
    .describe('What was answered before singing and practised, oldest first'),
  dates: z.array(DateShape).max(50).default([]),
  songs: z.array(SongTitle).max(100).default([]).describe('Titles of the singer’s songs whose key is chosen'),
  phaseWeeks: PhaseWeeksShape.default({}).describe('How many weeks a phase lasts where the coach has said so, by its id'),
  weeks: z.number().int().min(1).max(26).default(8).describe('Weeks of the road'),
});
export type VoiceFile = z.infer<typeof VoiceFile>;

/** The log that a voice file describes. */
export const logOfVoice = ({ log }: VoiceFile): Entry[] =>
  log.map((line, i): Entry => {
    const of = { id: String(i), assignmentId: null, day: line.day, at: `${line.day}T12:00:00Z` };
    if ('check' in line) {
      const { soft, sounded, warm, check } = line;
      return { ...of, what: { kind: 'check', warm, markerMidi: Math.round(soft), sounded, checked: check } };
    }
    if ('elsewhere' in line) return { ...of, what: { kind: 'elsewhere', where: line.elsewhere, minutes: line.minutes } };
    if (line.exercise === undefined) {
      const { hoarse, ill, pain, tired } = line;
      return { ...of, what: { kind: 'before', hoarse, ill, pain, tired } };
    }
    const { exercise, verdict, effort, signs, minutes } = line;
    return {
      ...of,
      what: {
        kind: 'item',
        exerciseId: exercise,
        name: exercise,
        sound: '',
        tempo: 60,
        keys: [],
        seconds: minutes * 60,
        load: null,
        success: successOf(verdict),
        effort,
        signs,
        byHand: false,
      },
    };
  });

/** The map that a voice file describes, with its pins on it. */
export function mapOfVoice({ range, passaggi, findings, speaking, pins }: VoiceFile): VoiceMap {
  const limit = (midi: number) => ({ midi, takeIds: [] });
  const ends = ({ low, high }: { low: number; high: number }) => ({ low: limit(low), high: limit(high) });
  const map: VoiceMap = {
    engine: 'described',
    takes: 1,
    extreme: ends(range.touched),
    usable: range.usable && ends(range.usable),
    passaggi: passaggi.flatMap(({ up, down, name, confidence }) => {
      const known = [up, down].filter((m) => m !== null);
      if (known.length === 0) return [];
      const midi = known.reduce((a, b) => a + b) / known.length;
      return [
        {
          midi,
          lowMidi: Math.min(...known),
          highMidi: Math.max(...known),
          upMidi: up,
          downMidi: down,
          up: { found: up === null ? 0 : 1, of: 1 },
          down: { found: down === null ? 0 : 1, of: 1 },
          widthSt: Math.max(...known) - Math.min(...known),
          name,
          confidence,
          impression: false,
          vowels: [],
          votes: [],
        },
      ];
    }),
    findings: findings.map((f) => ({ ...f, because: '', impression: false, takeIds: [] })),
    speakingMidi: speaking,
    levels: [],
    blend: [],
    evenness: null,
    insecure: [],
    vowelTurns: [],
    weight: null,
    calibrated: 0,
    pinned: {},
  };
  return withPins(
    map,
    Object.entries(pins).map(([what, midi]) => ({ what: what as (typeof PIN_NAMES)[number], midi: midi! })),
  );
}

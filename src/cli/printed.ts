import { z } from 'zod';
import { AIMS, FAMILIES, LOUDNESS_SHAPES, MATERIALS, MEASURES, PLACES, ROLES, STRANDS } from '../core/exercise/types';
import { ItemShape } from '../core/format/plan';
import { VoiceFile } from '../core/format/voice-file';
import { FAULTS, VERDICTS } from '../core/judge/types';
import { SCHOOL_IDS } from '../core/map/schools';
import { FINDING_NAMES } from '../core/map/types';
import { OCCASION_IDS } from '../core/plan/occasions';
import { STEPS } from '../core/plan/progress';
import { STANDINGS } from '../core/song/keys';
import { BREAKS } from '../core/song/outcome';
import { LEVELS, RISKS } from '../core/song/risks';
import { REGISTERS } from '../core/song/taken';
import { FITS, WAYS } from '../core/song/ways';
import { RuleId, RULES } from '../core/plan/rules';

const Midi = z.number().describe('MIDI note, fractions allowed');
const Rule = z.enum(Object.keys(RULES) as [RuleId, ...RuleId[]]);
const Grades = z.object(Object.fromEntries(STRANDS.map((s) => [s, z.number()])) as Record<(typeof STRANDS)[number], z.ZodNumber>);

/** What `npm run -s shelf -- --json` prints. */
const Shelf = z.array(
  z.object({
    id: z.string(),
    name: z.string(),
    family: z.enum(FAMILIES),
    strand: z.enum(STRANDS),
    grade: z.number().int().min(1).max(6),
    role: z.enum(ROLES),
    sounds: z.array(z.string()).describe('Easiest first'),
    tempo: z.object({ slowest: z.number(), usual: z.number(), fastest: z.number() }).describe('Crotchets a minute'),
    breathBeats: z.number().describe('Breath between keys, crotchets; the chord before each takes two'),
    text: z.string().describe('The pattern as it is written in the editor'),
    pattern: z.array(
      z.object({
        degree: z.number().int().describe('1 the tonic, 8 its octave'),
        alter: z.union([z.literal(-1), z.literal(1)]).optional(),
        semitones: z.number().int().describe('Above the tonic'),
        beats: z.number(),
        slide: z.boolean().describe('Glides to the next note'),
      }),
    ),
    measure: z.enum(MEASURES),
    aim: z.enum(AIMS),
    loudness: z.enum(LOUDNESS_SHAPES),
    place: z.enum(PLACES),
    weight: z.number().int().min(-1).max(1).describe('-1 takes weight off, +1 adds it'),
    weightOf: z.record(z.string(), z.number()).describe('The weight on each of its sounds'),
    needs: z.array(z.enum(MATERIALS)),
    after: z.array(z.string()).describe('Exercises that should be easy before'),
    suits: z.array(z.enum(FINDING_NAMES)),
    avoid: z.array(z.enum(FINDING_NAMES)),
    schools: z.array(z.enum(SCHOOL_IDS)).describe('Empty: all'),
  }),
);

const Verdict = z.enum(VERDICTS);
const Fault = z.enum(FAULTS).nullable();

/** What `npm run -s judge -- ... --json` prints. */
const Judge = z.object({
  verdict: Verdict,
  because: z.string().describe('One sentence'),
  code: Fault.describe('The weightiest reason; null for a yes'),
  keys: z.array(
    z.object({
      tonicMidi: Midi,
      verdict: Verdict,
      because: z.string().nullable(),
      code: Fault,
      notes: z.array(
        z.object({
          midi: Midi.describe('What was asked for'),
          slide: z.boolean(),
          startS: z.number(),
          endS: z.number(),
          sungMidi: Midi.nullable().describe('In the octave asked for; null for a slide, or where too little sounded'),
          levelDb: z.number().nullable(),
          verdict: Verdict,
          because: Fault,
        }),
      ),
    }),
  ),
});

const PhaseShape = z.object({ id: z.string(), name: z.string(), weeks: z.array(z.number()).length(2), until: z.string() });

/** What `npm run -s plan -- ... --json` prints. */
const Plan = z.object({
  week: z.object({
    anchors: z
      .object({ low: Midi, high: Midi, change: Midi, speaking: Midi })
      .describe('What keys are counted from; none leaves low to high'),
    changeMeasured: z.boolean().describe('False: the change is the one expected of the voice type'),
    worksOn: z.array(z.enum(FINDING_NAMES)),
    phase: PhaseShape.loose(),
    gates: z
      .array(z.object({ sings: z.array(z.string()), days: z.number().int(), done: z.number().int(), open: z.boolean() }))
      .describe(
        'What ends the phase as far as it can be reckoned: one of these exercises as meant on so many days running, and how many are',
      ),
    phases: z.array(PhaseShape),
    leftItsWay: z.boolean().describe('The phase that was begun is not on the way the map now asks for: a question to the coach'),
    grades: Grades,
    items: z.array(ItemShape),
    leftOut: z.array(z.object({ exerciseId: z.string(), because: z.string(), rule: Rule.nullable() })),
    notes: z.array(z.string()),
  }),
  today: z.object({
    day: z.iso.date(),
    because: z.string().nullable(),
    share: z.number().describe('Of the usual minutes'),
    items: z.array(ItemShape.extend({ minutes: z.number() })).describe('What may be sung today, with the keys that may be'),
  }),
  schools: z
    .array(z.object({ id: z.enum(SCHOOL_IDS), points: z.number(), speaksFor: z.array(z.string()), speaksAgainst: z.array(z.string()) }))
    .describe('The schools for this voice, its style and its wish, the likeliest first'),
  sets: z
    .array(z.object({ id: z.enum(OCCASION_IDS), name: z.string(), says: z.string(), minutes: z.number(), items: z.array(ItemShape) }))
    .describe('What is sung on occasions: warm-ups of three lengths, a morning, a show, the day after'),
  notices: z.array(z.object({ id: z.string(), does: z.string(), says: z.string() })).describe('What the log brings on by itself'),
  progress: z.record(z.string(), z.object({ step: z.enum(STEPS), because: z.string() })).describe('By exercise'),
  road: z.array(
    z.object({
      number: z.number().int(),
      startsOn: z.iso.date(),
      phase: z.object({ id: z.string(), name: z.string() }),
      aim: z.string(),
      items: z.array(ItemShape),
      comesIn: z.array(z.string()),
      rests: z.array(z.string()),
      load: z.number(),
      minutesADay: z.number(),
      listening: z.boolean(),
      test: z.boolean(),
      songs: z.array(z.object({ titles: z.array(z.string()), says: z.string() })).describe('Which songs, and how'),
      days: z.array(z.object({ day: z.iso.date(), load: z.number(), only: z.array(z.string()).nullable(), because: z.string() })),
      because: z.array(z.string()),
    }),
  ),
});

const BarNumber = z.union([z.number().int(), z.string()]).describe('As printed: a number where it is one');
const Level = z.enum(LEVELS);
const Share = z.number().min(0).max(1);
const NoteRange = z.object({ low: Midi, high: Midi, lowName: z.string(), highName: z.string() });
const Called = z.object({ sung: z.number().int(), broke: z.number().int() });

/** What `npm run -s song -- ... --json` prints. */
const SongSaid = z.object({
  title: z.string(),
  part: z.string().describe('The part of the file that was taken'),
  parts: z.array(z.object({ id: z.string(), name: z.string(), notes: z.number().int(), words: z.number().int(), chords: z.boolean() })),
  bars: z.number().int(),
  notes: z.number().int(),
  seconds: z.number(),
  octave: z.number().int().describe('Semitones by which this voice sings what is written higher, a multiple of 12'),
  voice: NoteRange.extend({
    changes: z.array(z.object({ up: Midi, down: Midi, name: z.string(), confidence: Share })),
  }).describe('What may be sung, and where the voice changes'),
  range: NoteRange.describe('Of the song in this voice’s octave'),
  tessitura: NoteRange.extend({ mean: Midi, histogram: z.array(z.object({ midi: Midi, seconds: z.number() })) }).describe(
    'The middle eight tenths of the singing time',
  ),
  atTheChangeS: z.number().describe('Seconds within two semitones of a change'),
  crossings: z.array(
    z.object({
      bar: BarNumber,
      from: Midi,
      to: Midi,
      direction: z.enum(['up', 'down']),
      by: z.enum(['step', 'leap', 'slide']),
      change: z.number().int().describe('Index in voice.changes'),
      words: z.string(),
    }),
  ),
  phrases: z.array(
    z.object({
      bars: z.array(BarNumber),
      seconds: z.number(),
      risk: Share,
      level: Level,
      because: z.string(),
      reasons: z.array(z.object({ code: z.enum(RISKS), bar: BarNumber, midi: Midi, weight: Share, says: z.string() })),
      ways: z
        .array(
          z.object({
            way: z.enum(WAYS),
            fit: z.enum(FITS),
            sounds: z.string(),
            says: z.string(),
            dose: z.string(),
            caution: z.string(),
          }),
        )
        .describe('How a high phrase can be taken, best first; none for others'),
    }),
  ),
  barRisks: z.array(z.object({ bar: BarNumber, risk: Share, level: Level })),
  transpositions: z
    .array(
      z.object({
        semitones: z.number().int().describe('Higher than written'),
        key: z.string(),
        says: z.string(),
        original: z.boolean(),
        fits: z.boolean(),
        standing: z.enum(STANDINGS),
        risk: Share,
        level: Level,
        because: z.string(),
        range: NoteRange,
        tessitura: NoteRange,
        atTheChangeS: z.number(),
        crossings: z.number().int(),
        riskyPhrases: z.number().int(),
        decidingBars: z.array(z.object({ bar: BarNumber, midi: Midi, code: z.enum([...RISKS, 'top', 'bottom']), because: z.string() })),
      }),
    )
    .describe('Best first'),
  cautions: z.array(z.string()),
  take: z
    .object({
      followed: z.boolean(),
      because: z.string(),
      semitones: z.number().int().nullable(),
      tuningCents: z.number().nullable(),
      pace: z.number().nullable().describe('Length of a crotchet against the one written'),
      cost: z.number().nullable().describe('How far it is from the song; 1 is no longer this song'),
      notes: z.array(
        z.object({
          note: z.number().int().describe('Index among the song’s notes; twice where it was begun again'),
          bar: BarNumber,
          midi: Midi.describe('What was asked'),
          startS: z.number(),
          endS: z.number(),
          sungMidi: Midi.nullable(),
          cents: z.number().nullable(),
          words: z.string(),
        }),
      ),
      bars: z.array(
        z.object({
          bar: BarNumber,
          called: Level.describe('Before it was sung'),
          sung: z.boolean(),
          broke: z.boolean(),
          code: z.enum(BREAKS).nullable(),
          because: z.string().nullable(),
          inTune: Share,
        }),
      ),
      phrases: z
        .array(
          z.object({
            bars: z.array(BarNumber),
            register: z.enum(REGISTERS).describe('What the voice did over its lowest change in this phrase'),
            ways: z
              .array(z.object({ way: z.enum(WAYS), verdict: Verdict, because: z.string() }))
              .describe('Had it been meant that way; none where nothing was sung over the change'),
          }),
        )
        .describe('How each phrase was taken'),
      record: z.object({ safe: Called, 'some care': Called, risky: Called }).nullable(),
    })
    .nullable(),
});

export const SCHEMAS = { voice: VoiceFile, shelf: Shelf, judge: Judge, plan: Plan, song: SongSaid };

/** A published schema (JSON Schema 2020-12) of what a command reads (`voice`) or prints. */
export const schemaOf = (name: keyof typeof SCHEMAS): object =>
  z.toJSONSchema(SCHEMAS[name], { io: 'input', unrepresentable: 'any', reused: 'ref' });

import { z } from 'zod';
import { MANNERS } from '../core/exercise/model';
import { MOST_SHORT_BYTES } from '../core/format/short-sound';
import { PassShape, PassWordShape } from '../core/format/ears';
import { ExerciseShape } from '../core/format/exercise';
import { CourseShape, ProtocolShape } from '../core/format/lesson';
import { EditsShape, ItemShape, LONGEST_NOTE, MOST_ITEMS, TermsShape } from '../core/format/plan';
import { EntryShape } from '../core/format/practice';
import { SingerShape } from '../core/format/singer';
import { ChosenShape, HeardShape, PredictedShape, SongShape, SungShape } from '../core/format/song';
import { LONGEST_SOUND } from '../core/format/exercise';
import { AskedShape, FindingsShape, MarkShape, SHA256, SOURCES, TraceShape } from '../core/format/take';
import { PIN_NAMES } from '../core/map/types';
import { COLOURS, TASKS } from '../core/take/types';
import type { Bundled } from '../data/bundle';

const Text = (most: number) => z.string().max(most);
/** PostgreSQL's own way of writing a time in JSON: ISO 8601 with an offset. */
const At = z.iso.datetime({ offset: true });
const Day = z.iso.date();
const Midi = z.number().min(0).max(127);
/** A short recording as PostgreSQL writes bytes in JSON. */
const ShortSound = z
  .string()
  .regex(/^\\x([0-9a-f]{2})*$/)
  .max(2 + 2 * MOST_SHORT_BYTES);
/** A singer's own timbre axis (core/take/timbre.ts). */
const Axis = z.object({ slope: z.number(), first: z.number(), apart: z.number().optional() });
const OfSong = z.object({ title: Text(60), key: z.int() });
/** A week as it was assigned carries its exercises along, ours as well, which go by names. */
const AssignedItem = ItemShape.extend({
  exercise: z.object({ ...ExerciseShape.shape, id: Text(60), ofSong: OfSong.optional() }).optional(),
});
const { name, part, voiceType, note, email, school, intake } = SingerShape.shape;
const entry = EntryShape.shape;

/**
 * What each row of a bundle must be, by the shapes the routes take as well: whatever is in a studio has gone through one of them, by
 * whichever door it came in. Columns that are left out are as a new row has them (`jsonb_populate_recordset` gives null, so what must
 * not be null must be there).
 */
export const BUNDLE_ROWS: Record<Bundled, z.ZodType> = {
  singer: z.object({
    id: z.uuid(),
    name,
    part,
    voice_type: voiceType,
    note,
    email,
    school,
    axis: Axis.nullable().default(null),
    intake,
    terms: TermsShape.nullable().default(null),
    plan_edits: EditsShape.nullable().default(null),
    archived_at: At.nullable().default(null),
    evidence: z.number().int().min(0).default(0),
    created_at: At,
  }),
  lesson: z.object({
    id: z.uuid(),
    singer_id: z.uuid(),
    name: Text(80),
    course: CourseShape,
    note: Text(4000).default(''),
    next_time: Text(2000).default(''),
    started_at: At,
    ended_at: At.nullable().default(null),
  }),
  protocol: z.object({
    id: z.uuid(),
    name: ProtocolShape.shape.name,
    purpose: ProtocolShape.shape.purpose,
    asks_health: z.boolean(),
    steps: ProtocolShape.shape.steps,
  }),
  exercise: z.object({ id: z.uuid(), exercise: ExerciseShape, changed_at: At }),
  model: z.object({
    id: z.uuid(),
    singer_id: z.uuid().nullable().default(null),
    exercise_id: Text(60),
    manner: z.enum(MANNERS),
    wav: ShortSound,
    made_at: At,
  }),
  template: z.object({ id: z.uuid(), name: Text(80), items: z.array(ItemShape).max(30), created_at: At }),
  song: z.object({ id: z.uuid(), song: SongShape, note: Text(4000).default(''), changed_at: At }),
  repertoire: z.object({ singer_id: z.uuid(), song_id: z.uuid(), chosen: ChosenShape, changed_at: At }),
  song_take: z.object({
    take_id: z.uuid(),
    song_id: z.uuid(),
    semitones: SungShape.shape.semitones,
    predicted: PredictedShape,
    heard: HeardShape.nullable().default(null),
  }),
  pin: z.object({ singer_id: z.uuid(), what: z.enum(PIN_NAMES), midi: Midi, pinned_at: At }),
  take: z.object({
    id: z.uuid(),
    singer_id: z.uuid(),
    task: z.enum(TASKS),
    vowel: Text(LONGEST_SOUND).default(''),
    colour: z.enum(COLOURS).nullable().default(null),
    source: z.enum(SOURCES),
    sha256: SHA256,
    bytes: z.number().int().min(0),
    duration_s: z.number().min(0),
    sample_rate: z.number().int().positive(),
    lesson_id: z.uuid().nullable().default(null),
    step: Text(60).default(''),
    asked: AskedShape.nullable().default(null),
    note: Text(2000).default(''),
    recorded_at: At,
    sound_removed_at: At.nullable().default(null),
  }),
  analysis: z.object({
    take_id: z.uuid(),
    engine: Text(60),
    findings: FindingsShape.nullable().default(null),
    trace: TraceShape.nullable().default(null),
    error: Text(1000).nullable().default(null),
    analysed_at: At,
  }),
  mark: z.object({
    id: z.uuid(),
    take_id: z.uuid(),
    time_s: MarkShape.shape.timeS,
    midi: MarkShape.shape.midi,
    direction: MarkShape.shape.direction,
    verdict: MarkShape.shape.verdict,
    by: MarkShape.shape.by,
    created_at: At,
  }),
  ear_answer: z.object({
    id: z.uuid(),
    take_id: z.uuid(),
    coach_id: Text(200),
    start_s: PassShape.shape.startS,
    end_s: PassShape.shape.endS,
    direction: PassShape.shape.direction,
    name: PassWordShape.shape.name,
    midi: PassWordShape.shape.midi.default(null),
    machine_name: PassWordShape.shape.name,
    machine_midi: PassWordShape.shape.midi.default(null),
    said_at: At,
  }),
  assignment: z.object({
    id: z.uuid(),
    singer_id: z.uuid(),
    note: Text(LONGEST_NOTE).default(''),
    items: z.array(AssignedItem).max(MOST_ITEMS),
    stand: z
      .looseObject({ phase: Text(80), grades: z.record(z.string(), z.number()) })
      .nullable()
      .default(null),
    starts_on: Day.nullable().default(null),
    created_at: At,
  }),
  practice: z.object({
    id: z.uuid(),
    singer_id: z.uuid(),
    assignment_id: z.uuid().nullable().default(null),
    day: entry.day,
    at: At,
    what: entry.what,
    answer: Text(2000).default(''),
    granted: z.boolean().default(false),
    received_at: At,
  }),
  spoken_word: z.object({ id: z.uuid(), singer_id: z.uuid(), wav: ShortSound, spoken_at: At }),
};

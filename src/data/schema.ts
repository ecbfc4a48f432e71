import { sql } from 'drizzle-orm';
import {
  boolean,
  customType,
  check,
  date,
  doublePrecision,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';
import type { Id } from '../core/format/id';
import type { Intake } from '../core/format/singer';
import type { Manner } from '../core/exercise/model';
import type { Course, LessonStep } from '../core/lesson/types';
import type { SchoolId } from '../core/map/schools';
import type { PinName, VoiceMap, VoiceSummary } from '../core/map/types';
import type { Exercise } from '../core/exercise/types';
import type { Edits } from '../core/plan/edits';
import type { Terms } from '../core/plan/request';
import type { PlanItem } from '../core/plan/types';
import type { Stand } from '../core/practice/chapters';
import type { SungDays } from '../core/practice/measures';
import type { Entry } from '../core/practice/types';
import type { Heard, PredictedBar } from '../core/song/outcome';
import type { Song } from '../core/song/types';
import type { Chosen } from '../core/format/song';
import type { TimbreAxis } from '../core/take/timbre';
import type { PassName } from '../core/ears/passes';
import type { Asked, Colour, Direction, TakeFindings, Trace } from '../core/take/types';

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });
const at = (name: string) => timestamp(name, { withTimezone: true });

export const studio = pgTable(
  'studio',
  {
    id: uuid('id').$type<Id<'studio'>>().primaryKey().defaultRandom(),
    name: text('name').notNull(),
    /** The school of teaching that names and orders things here; a singer may have another. */
    school: text('school').$type<SchoolId>().notNull().default('classical'),
    /** The sound of takes is deleted when it is so many months old, what was found in it stays; null: kept. */
    keepMonths: integer('keep_months'),
    /** Since when this is so: nothing is deleted in the first days of a new time (src/worker/sweep.ts). */
    keepMonthsSince: at('keep_months_since').notNull().defaultNow(),
    createdAt: at('created_at').notNull().defaultNow(),
  },
  (t) => [check('studio_keep_months', sql`${t.keepMonths} between 1 and 120`)],
);

/** Every table carries its studio; the pair (studio, id) is what others point at, so nothing can cross studios. */
const studioId = () =>
  uuid('studio_id')
    .$type<Id<'studio'>>()
    .notNull()
    .references(() => studio.id, { onDelete: 'cascade' });

export const singer = pgTable(
  'singer',
  {
    id: uuid('id').$type<Id<'singer'>>().primaryKey().defaultRandom(),
    studioId: studioId(),
    name: text('name').notNull(),
    part: text('part').notNull().default(''),
    voiceType: text('voice_type').notNull(),
    note: text('note').notNull().default(''),
    /** Where messages to the singer go; null: handed over by the coach. */
    email: text('email'),
    /** Taught by another school than the studio's; null: by the studio's. */
    school: text('school').$type<SchoolId>(),
    /** The singer's own timbre axis, from the newest four-colour calibration. */
    axis: jsonb('axis').$type<TimbreAxis>(),
    /** What was agreed and told at intake. */
    intake: jsonb('intake').$type<Intake>(),
    /** What is agreed about practice; null: the usual. */
    terms: jsonb('terms').$type<Terms>(),
    /** What the coach changed in the suggested plan. */
    planEdits: jsonb('plan_edits').$type<Edits>(),
    archivedAt: at('archived_at'),
    /** Raised with every take, analysis and mark: a stored map of an older number is worked out again. */
    evidence: integer('evidence').notNull().default(0),
    createdAt: at('created_at').notNull().defaultNow(),
  },
  (t) => [
    unique('singer_studio_id').on(t.studioId, t.id),
    check('singer_name_given', sql`length(trim(${t.name})) between 1 and 120`),
    check('singer_voice_type', sql`${t.voiceType} in ('bass','baritone','tenor','contralto','mezzo','soprano')`),
  ],
);

/** A guided lesson: its steps and where it stands. */
export const lesson = pgTable(
  'lesson',
  {
    /** Chosen by the client, so that a start sent twice is one lesson. */
    id: uuid('id').$type<Id<'lesson'>>().primaryKey(),
    studioId: studioId(),
    singerId: uuid('singer_id').$type<Id<'singer'>>().notNull(),
    name: text('name').notNull(),
    course: jsonb('course').$type<Course>().notNull(),
    note: text('note').notNull().default(''),
    /** What was agreed for the next time. */
    nextTime: text('next_time').notNull().default(''),
    startedAt: at('started_at').notNull().defaultNow(),
    endedAt: at('ended_at'),
  },
  (t) => [
    foreignKey({ columns: [t.studioId, t.singerId], foreignColumns: [singer.studioId, singer.id], name: 'lesson_singer' }).onDelete(
      'cascade',
    ),
    index('lesson_by_singer').on(t.singerId, t.startedAt),
    unique('lesson_studio_id').on(t.studioId, t.id),
  ],
);

/** A coach's own voice on an exercise, as it should or should not sound: for all singers, or for one. */
export const model = pgTable(
  'model',
  {
    id: uuid('id').$type<Id<'model'>>().primaryKey(),
    studioId: studioId(),
    singerId: uuid('singer_id').$type<Id<'singer'>>(),
    exerciseId: text('exercise_id').notNull(),
    manner: text('manner').$type<Manner>().notNull(),
    wav: bytea('wav').notNull(),
    madeAt: at('made_at').notNull().defaultNow(),
  },
  (t) => [
    foreignKey({ columns: [t.studioId, t.singerId], foreignColumns: [singer.studioId, singer.id], name: 'model_singer' }).onDelete(
      'cascade',
    ),
    // One of each kind: a new one takes the place of the old.
    unique('model_one').on(t.studioId, t.exerciseId, t.manner, t.singerId).nullsNotDistinct(),
    check('model_manner', sql`${t.manner} in ('like-this', 'not-like-this')`),
  ],
);

/** The coach's own lessons. */
export const protocol = pgTable('protocol', {
  id: uuid('id').primaryKey(),
  studioId: studioId(),
  name: text('name').notNull(),
  purpose: text('purpose').notNull().default(''),
  asksHealth: boolean('asks_health').notNull().default(true),
  steps: jsonb('steps').$type<LessonStep[]>().notNull(),
});

/** A value of the map that the coach set by hand; the machine's own stands beside it. */
export const pin = pgTable(
  'pin',
  {
    studioId: studioId(),
    singerId: uuid('singer_id').$type<Id<'singer'>>().notNull(),
    what: text('what').$type<PinName>().notNull(),
    midi: doublePrecision('midi').notNull(),
    pinnedAt: at('pinned_at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.singerId, t.what] }),
    foreignKey({ columns: [t.studioId, t.singerId], foreignColumns: [singer.studioId, singer.id], name: 'pin_singer' }).onDelete('cascade'),
    check('pin_what', sql`${t.what} in ('usable-low','usable-high','change','second-change','speaking')`),
  ],
);

/** The map pooled from a singer's evidence, kept until the evidence changes. */
export const voiceMap = pgTable(
  'voice_map',
  {
    studioId: studioId(),
    singerId: uuid('singer_id').$type<Id<'singer'>>().primaryKey(),
    engine: text('engine').notNull(),
    evidence: integer('evidence').notNull(),
    map: jsonb('map').$type<VoiceMap>().notNull(),
    summary: jsonb('summary').$type<VoiceSummary>().notNull(),
    /** What each day measured; null: the map was kept before that was. */
    days: jsonb('days').$type<SungDays>(),
  },
  (t) => [
    foreignKey({ columns: [t.studioId, t.singerId], foreignColumns: [singer.studioId, singer.id], name: 'voice_map_singer' }).onDelete(
      'cascade',
    ),
  ],
);

export const take = pgTable(
  'take',
  {
    /** Chosen by the client, so that a repeated upload is the same take. */
    id: uuid('id').$type<Id<'take'>>().primaryKey(),
    studioId: studioId(),
    singerId: uuid('singer_id').$type<Id<'singer'>>().notNull(),
    task: text('task').notNull(),
    vowel: text('vowel').notNull().default(''),
    /** The colour a held note was asked for in, for calibration; null for any other take. */
    colour: text('colour').$type<Colour>(),
    source: text('source').notNull(),
    sha256: text('sha256').notNull(),
    bytes: integer('bytes').notNull(),
    durationS: doublePrecision('duration_s').notNull(),
    sampleRate: integer('sample_rate').notNull(),
    /** The lesson it was made in, and the step of it. */
    lessonId: uuid('lesson_id').$type<Id<'lesson'>>(),
    step: text('step').notNull().default(''),
    /** What a scale take was asked to be. */
    asked: jsonb('asked').$type<Asked>(),
    note: text('note').notNull().default(''),
    recordedAt: at('recorded_at').notNull(),
    /** When its sound was deleted, as the studio's settings want; what was found in it stays. */
    soundRemovedAt: at('sound_removed_at'),
  },
  (t) => [
    unique('take_studio_id').on(t.studioId, t.id),
    foreignKey({ columns: [t.studioId, t.singerId], foreignColumns: [singer.studioId, singer.id], name: 'take_singer' }).onDelete(
      'cascade',
    ),
    index('take_by_singer').on(t.singerId, t.recordedAt),
    // A lesson that is deleted leaves its takes; the two go together only with their singer. (Migration 0011: only lesson_id is emptied.)
    foreignKey({ columns: [t.studioId, t.lessonId], foreignColumns: [lesson.studioId, lesson.id], name: 'take_lesson' }).onDelete(
      'set null',
    ),
    check('take_task', sql`${t.task} in ('siren','scale','sustain','speech','free')`),
    check('take_colour', sql`${t.colour} in ('chest','chest-blend','head-blend','head')`),
    check('take_source', sql`${t.source} in ('microphone','file','simulated')`),
    check('take_sha256', sql`${t.sha256} ~ '^[0-9a-f]{64}$'`),
  ],
);

/** The take's WAV file in pieces of at most 1 MB, so that it streams in and out. */
export const takeAudio = pgTable(
  'take_audio',
  {
    studioId: studioId(),
    takeId: uuid('take_id').$type<Id<'take'>>().notNull(),
    part: integer('part').notNull(),
    /** The piece itself; null: it lies in the sound store only. */
    bytes: bytea('bytes'),
    /** Its key in the sound store; null: it was never sent there. */
    storedAs: text('stored_as'),
  },
  (t) => [
    primaryKey({ columns: [t.takeId, t.part] }),
    foreignKey({ columns: [t.studioId, t.takeId], foreignColumns: [take.studioId, take.id], name: 'take_audio_take' }).onDelete('cascade'),
    index('take_audio_here')
      .on(t.studioId)
      .where(sql`bytes is not null`),
    check('take_audio_somewhere', sql`${t.bytes} is not null or ${t.storedAs} is not null`),
  ],
);

/** Keys in the sound store whose rows are gone: written by a trigger as they go, until the worker has deleted the pieces there too. */
export const soundToDelete = pgTable(
  'sound_to_delete',
  {
    /** Without a foreign key: it outlives whatever it came from. */
    studioId: uuid('studio_id').$type<Id<'studio'>>().notNull(),
    key: text('key').primaryKey(),
    goneAt: at('gone_at').notNull().defaultNow(),
  },
  (t) => [index('sound_to_delete_by_studio').on(t.studioId, t.goneAt)],
);

/** What one engine version found in a take. `error` is set when the analysis failed. */
export const analysis = pgTable(
  'analysis',
  {
    studioId: studioId(),
    takeId: uuid('take_id').$type<Id<'take'>>().notNull(),
    engine: text('engine').notNull(),
    findings: jsonb('findings').$type<TakeFindings>(),
    trace: jsonb('trace').$type<Trace>(),
    error: text('error'),
    analysedAt: at('analysed_at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.takeId, t.engine] }),
    foreignKey({ columns: [t.studioId, t.takeId], foreignColumns: [take.studioId, take.id], name: 'analysis_take' }).onDelete('cascade'),
  ],
);

/** The coach's word on a moment of a take; never touched by an analysis. */
export const mark = pgTable(
  'mark',
  {
    id: uuid('id').$type<Id<'mark'>>().primaryKey(),
    studioId: studioId(),
    takeId: uuid('take_id').$type<Id<'take'>>().notNull(),
    timeS: doublePrecision('time_s').notNull(),
    midi: doublePrecision('midi').notNull(),
    direction: text('direction').$type<Direction>().notNull(),
    verdict: text('verdict').$type<'accept' | 'reject' | 'move' | 'add'>().notNull(),
    by: text('by').$type<'coach' | 'singer'>().notNull().default('coach'),
    createdAt: at('created_at').notNull().defaultNow(),
  },
  (t) => [
    foreignKey({ columns: [t.studioId, t.takeId], foreignColumns: [take.studioId, take.id], name: 'mark_take' }).onDelete('cascade'),
    index('mark_by_take').on(t.takeId),
    check('mark_direction', sql`${t.direction} in ('up','down')`),
    check('mark_by', sql`${t.by} in ('coach','singer')`),
    check('mark_verdict', sql`${t.verdict} in ('accept','reject','move','add')`),
  ],
);

/** What a coach heard, blind, in one way of a slide, beside what the machine hears in it (kept in step by the pooling of maps). */
export const earAnswer = pgTable(
  'ear_answer',
  {
    /** Chosen by the client, so that an answer sent twice is one. */
    id: uuid('id').$type<Id<'answer'>>().primaryKey(),
    studioId: studioId(),
    takeId: uuid('take_id').$type<Id<'take'>>().notNull(),
    /** Whose ear: an account. It stays when the account goes. */
    coachId: text('coach_id').notNull(),
    startS: doublePrecision('start_s').notNull(),
    endS: doublePrecision('end_s').notNull(),
    direction: text('direction').$type<Direction>().notNull(),
    name: text('name').$type<PassName>().notNull(),
    midi: doublePrecision('midi'),
    machineName: text('machine_name').$type<PassName>().notNull(),
    machineMidi: doublePrecision('machine_midi'),
    saidAt: at('said_at').notNull().defaultNow(),
  },
  (t) => [
    foreignKey({ columns: [t.studioId, t.takeId], foreignColumns: [take.studioId, take.id], name: 'ear_answer_take' }).onDelete('cascade'),
    index('ear_answer_by_take').on(t.takeId),
    index('ear_answer_by_studio').on(t.studioId, t.machineName),
    check('ear_answer_direction', sql`${t.direction} in ('up','down')`),
    check('ear_answer_name', sql`${t.name} in ('flip','toggle','blended','none')`),
    check('ear_answer_machine_name', sql`${t.machineName} in ('flip','toggle','blended','none')`),
  ],
);

/** The coach's own exercises, and variants of ours. */
export const exercise = pgTable('exercise', {
  id: uuid('id').primaryKey(),
  studioId: studioId(),
  exercise: jsonb('exercise').$type<Exercise>().notNull(),
  changedAt: at('changed_at').notNull().defaultNow(),
});

/** A set kept by name, to be fitted to any voice. */
export const template = pgTable('template', {
  id: uuid('id').primaryKey(),
  studioId: studioId(),
  name: text('name').notNull(),
  items: jsonb('items').$type<PlanItem[]>().notNull(),
  createdAt: at('created_at').notNull().defaultNow(),
});

/** A song of the studio: its melody with words. Who sings it stands in `repertoire`. */
export const song = pgTable(
  'song',
  {
    /** Chosen by the client, so that sending it twice is one song. */
    id: uuid('id').$type<Id<'song'>>().primaryKey(),
    studioId: studioId(),
    song: jsonb('song').$type<Song>().notNull(),
    note: text('note').notNull().default(''),
    changedAt: at('changed_at').notNull().defaultNow(),
  },
  (t) => [unique('song_studio_id').on(t.studioId, t.id), index('song_by_studio').on(t.studioId)],
);

/** A song a singer works on: the key that was chosen, how its high phrases are taken, what the coach notes. */
export const repertoire = pgTable(
  'repertoire',
  {
    studioId: studioId(),
    singerId: uuid('singer_id').$type<Id<'singer'>>().notNull(),
    songId: uuid('song_id').$type<Id<'song'>>().notNull(),
    chosen: jsonb('chosen').$type<Chosen>().notNull(),
    changedAt: at('changed_at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.singerId, t.songId] }),
    foreignKey({ columns: [t.studioId, t.singerId], foreignColumns: [singer.studioId, singer.id], name: 'repertoire_singer' }).onDelete(
      'cascade',
    ),
    foreignKey({ columns: [t.studioId, t.songId], foreignColumns: [song.studioId, song.id], name: 'repertoire_song' }).onDelete('cascade'),
  ],
);

/** A take of a song: in which key, what was predicted of it when it was sung, and what came of that. */
export const songTake = pgTable(
  'song_take',
  {
    takeId: uuid('take_id').$type<Id<'take'>>().primaryKey(),
    studioId: studioId(),
    songId: uuid('song_id').$type<Id<'song'>>().notNull(),
    semitones: integer('semitones').notNull(),
    predicted: jsonb('predicted').$type<PredictedBar[]>().notNull(),
    /** What was heard, by which engine; null: not listened to yet, or it isn't this song. */
    heard: jsonb('heard').$type<Heard>(),
  },
  (t) => [
    foreignKey({ columns: [t.studioId, t.takeId], foreignColumns: [take.studioId, take.id], name: 'song_take_take' }).onDelete('cascade'),
    foreignKey({ columns: [t.studioId, t.songId], foreignColumns: [song.studioId, song.id], name: 'song_take_song' }).onDelete('cascade'),
    index('song_take_by_song').on(t.songId),
    check('song_take_semitones', sql`${t.semitones} between -36 and 36`),
  ],
);

/** An item as it was assigned: with the exercise as it was then. Older ones have none and mean the shelf's. */
export type AssignedItem = PlanItem & { exercise?: Exercise };

export const assignment = pgTable(
  'assignment',
  {
    id: uuid('id').$type<Id<'assignment'>>().primaryKey().defaultRandom(),
    studioId: studioId(),
    singerId: uuid('singer_id').$type<Id<'singer'>>().notNull(),
    note: text('note').notNull().default(''),
    items: jsonb('items').$type<AssignedItem[]>().notNull(),
    /** Where the singer stood in the plan then; null in older ones, or where there was no plan. */
    stand: jsonb('stand').$type<Stand>(),
    /** The first day of its week; null in older ones: the day it was made. */
    startsOn: date('starts_on', { mode: 'string' }),
    createdAt: at('created_at').notNull().defaultNow(),
  },
  (t) => [
    foreignKey({ columns: [t.studioId, t.singerId], foreignColumns: [singer.studioId, singer.id], name: 'assignment_singer' }).onDelete(
      'cascade',
    ),
    index('assignment_by_singer').on(t.singerId, t.createdAt),
    unique('assignment_studio_id').on(t.studioId, t.id),
  ],
);

/** A singer's own way in: the hash of a long random token; the token itself is only in the message that carries it. */
export const link = pgTable(
  'link',
  {
    id: uuid('id').$type<Id<'link'>>().primaryKey().defaultRandom(),
    studioId: studioId(),
    singerId: uuid('singer_id').$type<Id<'singer'>>().notNull(),
    tokenHash: text('token_hash').notNull().unique(),
    createdAt: at('created_at').notNull().defaultNow(),
    expiresAt: at('expires_at').notNull(),
    revokedAt: at('revoked_at'),
    usedAt: at('used_at'),
  },
  (t) => [
    foreignKey({ columns: [t.studioId, t.singerId], foreignColumns: [singer.studioId, singer.id], name: 'link_singer' }).onDelete(
      'cascade',
    ),
    index('link_by_singer').on(t.singerId),
    check('link_token_hash', sql`${t.tokenHash} ~ '^[0-9a-f]{64}$'`),
  ],
);

/** What the studio has to send; kept here and shown until a mail server is set. */
export const message = pgTable(
  'message',
  {
    id: uuid('id').$type<Id<'message'>>().primaryKey().defaultRandom(),
    studioId: studioId(),
    /** About whom; gone with them. */
    singerId: uuid('singer_id').$type<Id<'singer'>>(),
    recipient: text('recipient').notNull(),
    /** Where a mail server takes it; null: the coach hands it over. */
    address: text('address'),
    subject: text('subject').notNull(),
    /** Empty once a mail server has taken a message that holds a key. */
    body: text('body').notNull(),
    /** Holds a key to a coach's account: shown to owners only. */
    forOwners: boolean('for_owners').notNull().default(false),
    /** Why the mail server would not take it. */
    problem: text('problem'),
    madeAt: at('made_at').notNull().defaultNow(),
    sentAt: at('sent_at'),
  },
  (t) => [
    foreignKey({ columns: [t.studioId, t.singerId], foreignColumns: [singer.studioId, singer.id], name: 'message_singer' }).onDelete(
      'cascade',
    ),
    index('message_by_studio').on(t.studioId, t.madeAt),
  ],
);

/** What makes a line of the log one of the singer's own words that nobody has answered. */
export const UNANSWERED = sql`what ?| array['word', 'spokenS'] and answer = ''`;
/** What of a line of the log is trouble. */
export const TROUBLE = sql`what->'signs'->0 is not null or what @> '{"pain": true}' or what @> '{"hoarse": true}' or what @> '{"ill": true}' or what @> '{"kind": "check", "sounded": false}'`;

/** A line of a singer's practice log. */
export const practice = pgTable(
  'practice',
  {
    /** Chosen where it is written, so that a line sent twice is one. */
    id: uuid('id').$type<Id<'entry'>>().primaryKey(),
    studioId: studioId(),
    singerId: uuid('singer_id').$type<Id<'singer'>>().notNull(),
    assignmentId: uuid('assignment_id').$type<Id<'assignment'>>(),
    day: date('day', { mode: 'string' }).notNull(),
    at: at('at').notNull(),
    what: jsonb('what').$type<Entry['what']>().notNull(),
    /** The coach's answer to the singer's words in it. */
    answer: text('answer').notNull().default(''),
    /** The coach's word that it went as meant, where nobody listened. */
    granted: boolean('granted').notNull().default(false),
    receivedAt: at('received_at').notNull().defaultNow(),
  },
  (t) => [
    foreignKey({ columns: [t.studioId, t.singerId], foreignColumns: [singer.studioId, singer.id], name: 'practice_singer' }).onDelete(
      'cascade',
    ),
    // As with a take's lesson.
    foreignKey({
      columns: [t.studioId, t.assignmentId],
      foreignColumns: [assignment.studioId, assignment.id],
      name: 'practice_assignment',
    }).onDelete('set null'),
    index('practice_by_singer').on(t.singerId, t.day),
    // On which days somebody practised is told by the index alone; row-level security wants the studio in it.
    index('practice_items')
      .on(t.singerId, t.day, t.studioId)
      .where(sql`what->>'kind' = 'item'`),
    // Words that wait for an answer.
    index('practice_unanswered').on(t.singerId, t.day, t.studioId).where(UNANSWERED),
    // Trouble that was told.
    index('practice_troubles').on(t.singerId, t.day, t.studioId).where(TROUBLE),
    // Asked every second or so by pages that want to know what is new.
    index('practice_by_arrival').on(t.studioId, t.receivedAt),
  ],
);

/** A word a singer spoke to their coach, of a line of the log, by that line's id; it may arrive before the line does. */
export const spokenWord = pgTable(
  'spoken_word',
  {
    id: uuid('id').$type<Id<'entry'>>().primaryKey(),
    studioId: studioId(),
    singerId: uuid('singer_id').$type<Id<'singer'>>().notNull(),
    wav: bytea('wav').notNull(),
    spokenAt: at('spoken_at').notNull().defaultNow(),
  },
  (t) => [
    foreignKey({ columns: [t.studioId, t.singerId], foreignColumns: [singer.studioId, singer.id], name: 'spoken_word_singer' }).onDelete(
      'cascade',
    ),
    index('spoken_word_by_singer').on(t.singerId, t.spokenAt),
  ],
);

/** What a line of the log says was done. */
export type Deed =
  | 'looked'
  | 'added'
  | 'changed'
  | 'deleted'
  | 'signed in'
  | 'could not sign in'
  | 'signed out'
  | 'took out'
  | 'brought in'
  | 'opened'
  | 'invited'
  | 'took back'
  | 'joined'
  | 'was made'
  | 'was taken out'
  | 'changed the password'
  | 'asked for a new password'
  | 'set a new password'
  | 'offered a new password';

/** Who looked at a singer and who changed what: written by the database itself (migration 0008), never changed by the application. */
export const audit = pgTable(
  'audit',
  {
    id: uuid('id').$type<Id<'audit'>>().primaryKey().defaultRandom(),
    studioId: studioId(),
    at: at('at').notNull().defaultNow(),
    /** A coach's name, 'the singer' by their link, or Wendel itself. */
    actor: text('actor').notNull(),
    /** The coach's account: a name may be anybody's. Null for the singer, Wendel itself and lines older than migration 0011. */
    actorId: text('actor_id'),
    did: text('did').$type<Deed>().notNull(),
    /** The table, and the columns that changed. */
    what: text('what').notNull(),
    columns: text('columns').array(),
    whatId: text('what_id'),
    /** What is worth knowing besides: a role, a sender's address. Nothing of a singer. */
    detail: text('detail'),
    /** About whom. When they are deleted the line stays with who and when, and without whom (migration 0011). */
    singerId: uuid('singer_id').$type<Id<'singer'>>(),
  },
  (t) => [
    foreignKey({ columns: [t.studioId, t.singerId], foreignColumns: [singer.studioId, singer.id], name: 'audit_singer' }).onDelete(
      'cascade',
    ),
    index('audit_by_studio').on(t.studioId, t.at),
    index('audit_by_singer').on(t.singerId, t.at),
  ],
);

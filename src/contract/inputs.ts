import { IdShape } from '../core/format/id';
import { z } from 'zod';
import { MANNERS } from '../core/exercise/model';
import { LONGEST_SOUND } from '../core/format/exercise';
import { PassShape, PassWordShape } from '../core/format/ears';
import { CourseShape } from '../core/format/lesson';
import { EditsShape, ItemsShape, LONGEST_NOTE, TermsShape } from '../core/format/plan';
import { EntryShape } from '../core/format/practice';
import { SongShape, SungShape } from '../core/format/song';
import { ROLES } from '../core/format/studio';
import { AskedShape, FIRST_RECORDING, SHA256, SOURCES } from '../core/format/take';
import { SCHOOL_IDS } from '../core/map/schools';
import { PIN_NAMES } from '../core/map/types';
import { OCCASION_IDS } from '../core/plan/occasions';
import { MOST_TOGETHER } from '../core/plan/together';
import { COLOURS, TASKS } from '../core/take/types';

// What a request may hold, beside the shapes of what is kept (core/format).

export const PASSWORD_LENGTH = { least: 12, most: 128 };

const Email = z.email('That is no e-mail address: look at it once more.').max(200).toLowerCase();
const Password = z
  .string()
  .min(PASSWORD_LENGTH.least, `A password has at least ${PASSWORD_LENGTH.least} characters: three or four words do well.`)
  .max(PASSWORD_LENGTH.most);
/** Names the log gives to others. */
const NOT_A_NAME = /^(the singer|wendel itself)$/i;
const Name = z
  .string()
  .trim()
  .min(1, 'Give your name.')
  .max(120)
  .refine((name) => !NOT_A_NAME.test(name), 'Take another name: this one is used in the log for somebody else.');

export const SignUpInput = z.object({
  name: Name,
  email: Email,
  password: Password,
  /** A name for a studio of one's own; null: take over the demo's. */
  studio: z.string().trim().min(1, 'Give the studio a name.').max(120).nullable(),
});

export const SignInInput = z.object({ email: Email, password: z.string().max(PASSWORD_LENGTH.most) });

export const CodeInput = z.object({ code: z.string().trim().min(6).max(20) });

export const ForgotInput = z.object({ email: Email });

export const NewPasswordInput = z.object({ token: z.string().min(1).max(200), password: Password });

export const PasswordInput = z.object({ present: z.string().max(PASSWORD_LENGTH.most), password: Password });

export const OwnPasswordInput = z.object({ present: z.string().max(PASSWORD_LENGTH.most) });

export const InviteInput = z.object({ email: Email, role: z.enum(ROLES) });

export const RoleInput = z.object({ role: z.enum(ROLES) });

export const JoinInput = z.object({ name: Name, password: Password });

export const PinInput = z.object({ what: z.enum(PIN_NAMES), midi: z.number().min(24).max(100).nullable() });

const DAY_MS = 86_400_000;

/** JSON, as it comes in the address. */
const fromAddress = (v: unknown): unknown => (typeof v === 'string' ? JSON.parse(v) : v);

export const TakeMeta = z.object({
  id: IdShape('take'),
  singerId: IdShape('singer'),
  task: z.enum(TASKS),
  /** On what it was sung: a vowel, or a sound of an exercise. */
  vowel: z.string().max(LONGEST_SOUND).default(''),
  colour: z.enum(COLOURS).nullable().default(null),
  source: z.enum(SOURCES),
  sha256: SHA256,
  /** By the recorder's own clock, which may be wrong by a day; how long sound is kept is counted from it. */
  recordedAt: z.coerce
    .date()
    .min(FIRST_RECORDING)
    .refine((at) => at.getTime() < Date.now() + DAY_MS, 'The time of recording lies in the future: set the clock right and save it again.'),
  lessonId: IdShape('lesson').nullable().default(null),
  step: z.string().max(60).default(''),
  asked: z.preprocess(fromAddress, AskedShape.nullable()).default(null),
  /** The song it is a take of, and in which key. */
  song: z.preprocess(fromAddress, SungShape.nullable()).default(null),
});
export type TakeMeta = z.infer<typeof TakeMeta>;

export const TakeNote = z.object({ note: z.string().trim().max(2000) });

export const LessonInput = z.object({
  id: IdShape('lesson'),
  singerId: IdShape('singer'),
  name: z.string().trim().min(1).max(80),
  course: CourseShape,
});

export const LessonChange = z.object({
  course: CourseShape.optional(),
  note: z.string().trim().max(4000).optional(),
  nextTime: z.string().trim().max(2000).optional(),
});

export const AssignmentInput = z.object({
  singerId: IdShape('singer'),
  note: z.string().trim().max(LONGEST_NOTE).default(''),
  startsOn: z.iso.date('Choose the day the week begins.'),
  items: ItemsShape.min(1, 'Choose at least one exercise.'),
});

/** A set for several singers at once; `beside`: it comes beside the exercises of the week each of them is in, not instead of them. */
export const TogetherInput = z.object({
  singerIds: z.array(IdShape('singer')).min(1, 'Tick who sings.').max(MOST_TOGETHER),
  set: z.enum(OCCASION_IDS),
  note: AssignmentInput.shape.note,
  startsOn: AssignmentInput.shape.startsOn,
  beside: z.boolean(),
});

export const PlanInput = z.object({
  terms: TermsShape.optional(),
  edits: EditsShape.nullable().optional(),
  school: z.enum(SCHOOL_IDS).optional(),
});

export const TemplateInput = z.object({
  id: IdShape('template'),
  name: z.string().trim().min(1, 'Give the set a name.').max(80),
  items: ItemsShape.min(1),
});

export const EntriesInput = z.object({ entries: z.array(EntryShape).max(500) });
export const AnswerInput = z
  .object({ answer: z.string().trim().max(2000).optional(), granted: z.boolean().optional() })
  .refine((word) => word.answer !== undefined || word.granted !== undefined, 'Say an answer, or whether it counts as gone well.');

export const SongInput = z.object({ id: IdShape('song'), song: SongShape, note: z.string().max(4000).default('') });

/** More of a request than others need: a long song has some thousand notes. */
export const MOST_SONG_BYTES = 1_200_000;

/** What was heard, blind, in one way of a slide. */
export const HeardInput = z.object({ id: IdShape('answer'), takeId: IdShape('take'), ...PassShape.shape, word: PassWordShape });

/** A word a singer spoke, of the line of their log with that id. */
export const SpokenMeta = z.object({ id: IdShape('entry'), sha256: SHA256 });

export const ModelMeta = z.object({
  id: IdShape('model'),
  exerciseId: z.string().min(1).max(60),
  manner: z.enum(MANNERS),
  singerId: IdShape('singer').nullable().default(null),
});

import { z } from 'zod';
import type { AskedPass, Ears } from '../core/ears/passes';
import { ExerciseShape } from '../core/format/exercise';
import type { IdsIn } from '../core/format/id';
import { ProtocolShape } from '../core/format/lesson';
import { SingerShape } from '../core/format/singer';
import { ChosenShape } from '../core/format/song';
import { Role, StudioShape } from '../core/format/studio';
import { MarkShape } from '../core/format/take';
import type { Crossing } from '../core/map/crossings';
import type { VoiceMap } from '../core/map/types';
import type { AssignedItem, BroughtIn, HeardBlind, OtherTake, SingerRecord, SongSinger, Stored, TakeAnswer } from './answers';
import * as input from './inputs';

/** One way of asking the server: who may, what goes along, and what comes back. */
export interface Route {
  /** A member of a studio of at least that role, or anyone, who then shows a key of another kind (a link, a password). */
  who: Role | 'anyone';
  /** What goes along as JSON. */
  body?: z.ZodType;
  /** What goes along in the address. */
  query?: z.ZodType;
  /** The name in the path that is the `id` of what goes along. */
  itsId?: string;
  /** What goes along is a file; a handler reads it as it arrives. */
  file?: true;
  /** Where a body may hold more than others. */
  mostBytes?: number;
  /** What comes back: only its type counts. Without: that it is done. */
  answer?: () => unknown;
}

/** The type of an answer. */
const gives =
  <T>() =>
  (): T => {
    throw new Error('An answer’s type has no value.');
  };
type Made = { id: string };
type Addressed = { address: string };

/**
 * Every route that pages, phones and tests ask, in one place: `server/handle.ts` and `sync/ask.ts` take from here what goes along and what
 * comes back. Names in brackets that end in Id are ids, but for those of accounts.
 */
export const ROUTES = {
  'PUT /api/account/password': { who: 'reader', body: input.PasswordInput },
  'POST /api/account/second-factor': {
    who: 'reader',
    body: input.OwnPasswordInput,
    answer: gives<{ uri: string; codes: string[] }>(),
  },
  'PUT /api/account/second-factor': { who: 'reader', body: input.CodeInput },
  'DELETE /api/account/second-factor': { who: 'reader', body: input.OwnPasswordInput },
  'DELETE /api/account/sessions/[sessionId]': { who: 'reader' },
  'POST /api/door/code': { who: 'anyone', body: input.CodeInput },
  'POST /api/door/forgot': { who: 'anyone', body: input.ForgotInput },
  'POST /api/door/join/[token]': { who: 'anyone', body: input.JoinInput },
  'POST /api/door/new-password': { who: 'anyone', body: input.NewPasswordInput },
  /** `code`: a second factor is asked for next. */
  'POST /api/door/sign-in': { who: 'anyone', body: input.SignInInput, answer: gives<{ code: boolean }>() },
  'POST /api/door/sign-out': { who: 'reader' },
  'POST /api/door/sign-up': { who: 'anyone', body: input.SignUpInput },
  'POST /api/invites': { who: 'owner', body: input.InviteInput, answer: gives<Addressed>() },
  'DELETE /api/invites/[inviteId]': { who: 'owner' },
  'PUT /api/members/[userId]': { who: 'owner', body: input.RoleInput },
  'DELETE /api/members/[userId]': { who: 'owner' },

  'PUT /api/settings': { who: 'owner', body: StudioShape },
  'GET /api/bundle': { who: 'owner' },
  /** `dry`: only say what would come. */
  'POST /api/bundle': { who: 'owner', query: z.object({ dry: z.string().optional() }), file: true, answer: gives<BroughtIn>() },
  'POST /api/post': { who: 'coach' },
  /** A stream of changes (contract/answers) as server-sent events, as long as somebody listens. */
  'GET /api/changes': { who: 'reader' },

  'POST /api/singers': { who: 'coach', body: SingerShape, answer: gives<Made>() },
  'GET /api/singers/[singerId]': { who: 'coach', answer: gives<SingerRecord>() },
  'PUT /api/singers/[singerId]': { who: 'coach', body: SingerShape },
  'PATCH /api/singers/[singerId]': { who: 'coach', body: z.object({ archived: z.boolean() }) },
  'DELETE /api/singers/[singerId]': { who: 'coach', body: z.object({ name: z.string().max(200) }) },
  'GET /api/singers/[singerId]/export': { who: 'coach' },
  'POST /api/singers/[singerId]/link': { who: 'coach', answer: gives<Addressed & { mailed: boolean }>() },
  'DELETE /api/singers/[singerId]/link': { who: 'coach' },
  /** Takes that can be heard beside another's, newest first. */
  'GET /api/singers/[singerId]/takes': { who: 'reader', answer: gives<OtherTake[]>() },
  /** The map as it stood at a time. */
  'GET /api/singers/[singerId]/map': { who: 'reader', query: z.object({ until: z.coerce.date() }), answer: gives<VoiceMap>() },
  /** Every pass in which the change nearest to a pitch was heard, oldest first. */
  'GET /api/singers/[singerId]/crossings': {
    who: 'reader',
    query: z.object({ midi: z.coerce.number().min(0).max(127) }),
    answer: gives<Crossing[]>(),
  },
  'PUT /api/singers/[singerId]/pins': { who: 'coach', body: input.PinInput },
  'PUT /api/singers/[singerId]/plan': { who: 'coach', body: input.PlanInput },
  'PUT /api/singers/[singerId]/songs/[songId]': { who: 'coach', body: ChosenShape },
  'DELETE /api/singers/[singerId]/songs/[songId]': { who: 'coach' },

  'PUT /api/takes/[takeId]': { who: 'coach', query: input.TakeMeta, itsId: 'takeId', file: true, answer: gives<Stored>() },
  /** `wait`: until it was analysed, for some seconds. */
  'GET /api/takes/[takeId]': { who: 'reader', query: z.object({ wait: z.string().optional() }), answer: gives<TakeAnswer>() },
  'PATCH /api/takes/[takeId]': { who: 'coach', body: input.TakeNote },
  'DELETE /api/takes/[takeId]': { who: 'coach' },
  'GET /api/takes/[takeId]/audio': { who: 'reader' },
  'PUT /api/takes/[takeId]/marks/[markId]': { who: 'coach', body: MarkShape },
  'DELETE /api/takes/[takeId]/marks/[markId]': { who: 'coach' },

  /** Ways of slides to be heard blind, drawn anew each time. */
  'GET /api/ears/passes': { who: 'coach', answer: gives<AskedPass[]>() },
  'PUT /api/ears/answers/[answerId]': { who: 'coach', body: input.HeardInput, itsId: 'answerId', answer: gives<HeardBlind>() },
  /** Of whoever asks: one, or all of them. */
  'DELETE /api/ears/answers/[answerId]': { who: 'coach', answer: gives<Ears>() },
  'DELETE /api/ears/answers': { who: 'coach', answer: gives<Ears>() },

  'POST /api/lessons': { who: 'coach', body: input.LessonInput, answer: gives<Made>() },
  'PUT /api/lessons/[lessonId]': { who: 'coach', body: input.LessonChange },
  'PUT /api/protocols/[protocolId]': { who: 'coach', body: ProtocolShape, itsId: 'protocolId' },
  'DELETE /api/protocols/[protocolId]': { who: 'coach' },

  'PUT /api/exercises/[exerciseId]': { who: 'coach', body: ExerciseShape, itsId: 'exerciseId' },
  'DELETE /api/exercises/[exerciseId]': { who: 'coach' },
  'PUT /api/models/[modelId]': { who: 'coach', query: input.ModelMeta, itsId: 'modelId', file: true },
  'GET /api/models/[modelId]': { who: 'reader' },
  'DELETE /api/models/[modelId]': { who: 'coach' },
  'POST /api/assignments': { who: 'coach', body: input.AssignmentInput, answer: gives<Made>() },
  'POST /api/together': {
    who: 'coach',
    body: input.TogetherInput,
    answer: gives<{ given: string[]; unheard: string[]; resting: string[] }>(),
  },
  'GET /api/assignments/[assignmentId]': { who: 'reader', answer: gives<{ items: AssignedItem[] }>() },
  'PUT /api/templates/[templateId]': { who: 'coach', body: input.TemplateInput, itsId: 'templateId' },
  'DELETE /api/templates/[templateId]': { who: 'coach' },

  'PUT /api/songs/[songId]': { who: 'coach', body: input.SongInput, itsId: 'songId', mostBytes: input.MOST_SONG_BYTES },
  'DELETE /api/songs/[songId]': { who: 'coach' },
  /** Every singer who was heard, for whom it may fit. */
  'GET /api/songs/[songId]/singers': { who: 'reader', answer: gives<SongSinger[]>() },

  'PUT /api/practice/[entryId]': { who: 'coach', body: input.AnswerInput },
  /** What was spoken of a line of a log. */
  'GET /api/practice/[entryId]/spoken': { who: 'reader' },
  'DELETE /api/practice/[entryId]/spoken': { who: 'coach' },
  'PUT /api/p/[token]/spoken/[entryId]': { who: 'anyone', query: input.SpokenMeta, itsId: 'entryId', file: true },
  'POST /api/p/[token]/entries': { who: 'anyone', body: input.EntriesInput },
  'PUT /api/p/[token]/takes/[takeId]': { who: 'anyone', query: input.TakeMeta, itsId: 'takeId', file: true, answer: gives<Stored>() },
  'GET /p/[token]/models/[modelId]': { who: 'anyone' },
} as const satisfies Record<string, Route>;

export type Routes = typeof ROUTES;
export type RouteName = keyof Routes;

type NamesIn<Path extends string> = Path extends `${string}[${infer Name}]${infer Rest}` ? Name | NamesIn<Rest> : never;
/** What the names in a route's path stand for. */
export type ParamsOf<N extends RouteName> = { [Name in NamesIn<N>]: string };
/** As a handler is given them, checked. */
export type GivenParams<N extends RouteName> = IdsIn<NamesIn<N>>;

/** As a shape is written; a shape that tells only what it makes is written so. */
type Written<S> = S extends z.ZodType<infer Out, infer In> ? (unknown extends In ? Out : In) : undefined;
type WithoutItsId<R, Sent> = R extends { itsId: string } ? Omit<Sent, 'id'> : Sent;
type Of<N extends RouteName, What extends string> = Routes[N] extends Record<What, infer S> ? S : undefined;

/** What a caller sends. */
export type BodyOf<N extends RouteName> = WithoutItsId<Routes[N], Written<Of<N, 'body'>>>;
/** What a caller puts in the address. */
export type QueryOf<N extends RouteName> =
  Of<N, 'query'> extends z.ZodType<infer Out>
    ? Routes[N] extends { file: true }
      ? undefined
      : { [Name in keyof Out]?: string }
    : undefined;
/** What a handler is given, checked. */
export type GivenBody<N extends RouteName> = Of<N, 'body'> extends z.ZodType<infer Out> ? Out : undefined;
export type GivenQuery<N extends RouteName> = Of<N, 'query'> extends z.ZodType<infer Out> ? Out : undefined;
/** What comes back. */
export type AnswerOf<N extends RouteName> = Routes[N] extends { answer: () => infer A } ? A : void;

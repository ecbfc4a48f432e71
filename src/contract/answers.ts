import type { Id } from '../core/format/id';
import type { Ears, PassWord } from '../core/ears/passes';
import type { Exercise } from '../core/exercise/types';
import type { z } from 'zod';
import type { Intake, SingerShape } from '../core/format/singer';
import type { Chosen } from '../core/format/song';
import type { TakeFindings, Task, Trace } from '../core/take/types';
import type { SongVoice } from '../core/song/voice';
import type { CoachMark } from '../core/map/types';
import type { PlanItem } from '../core/plan/types';

/** A recording that arrived. */
export interface Stored {
  id: string;
  /** The same recording was stored before. */
  repeated: boolean;
}

/** What is entered of a singer, as it stands. */
export type SingerRecord = Omit<z.infer<typeof SingerShape>, 'intake'> & { id: string; intake: Intake | null; archived: boolean };

/** A take with its newest analysis (null while it waits) and the coach's marks. */
export interface TakeAnswer {
  take: { id: string; durationS: number };
  analysis: { engine: string; findings: TakeFindings | null; trace: Trace | null; error: string | null } | null;
  marks: CoachMark[];
}

/** What others hear in a pass that was heard blind, and how the ears of whoever asks compare now. */
export interface HeardBlind {
  machine: PassWord;
  others: PassWord[];
  ears: Ears;
}

/** Something that was stored and that a page may wait for: a take that was heard (its id), a line of a singer's log (the singer's id). */
export interface Change {
  what: 'take heard' | 'practised';
  id: string;
}

/** What came, or would come, with a bundle. */
export interface BroughtIn {
  /** For each table that holds rows: how many were new, and how many there already. */
  tables: { name: string; fresh: number; known: number }[];
  recordings: number;
  /** The studio's name, school and time of keeping come along: only where nobody is in it yet. */
  settings: boolean;
}

/** A take to be heard and seen beside another. */
export interface OtherTake {
  id: string;
  task: Task;
  recordedAt: Date;
}

/** A singer who was heard, as a song is laid on their voice, and what is chosen for it. */
export interface SongSinger {
  singerId: Id<'singer'>;
  name: string;
  chosen: Chosen | null;
  voice: SongVoice;
}

/** An item of an assigned week, with its exercise as it was then. */
export type AssignedItem = PlanItem & { exercise: Exercise };

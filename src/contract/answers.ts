import type { Exercise } from '../core/exercise/types';
import type { Chosen } from '../core/format/song';
import type { TakeFindings, Trace } from '../core/take/types';
import type { Level } from '../core/song/risks';
import type { CoachMark } from '../core/map/types';
import type { PlanItem } from '../core/plan/types';

/** A recording that arrived. */
export interface Stored {
  id: string;
  /** The same recording was stored before. */
  repeated: boolean;
}

/** A take with its newest analysis (null while it waits) and the coach's marks. */
export interface TakeAnswer {
  take: { id: string; durationS: number };
  analysis: { engine: string; findings: TakeFindings | null; trace: Trace | null; error: string | null } | null;
  marks: CoachMark[];
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

/** The key of a song that suits a singer best, and why. */
export interface SongFit {
  singerId: string;
  name: string;
  chosen: Chosen | null;
  semitones: number;
  key: string;
  says: string;
  level: Level;
  fits: boolean;
  because: string;
}

/** An item of an assigned week, with its exercise as it was then. */
export type AssignedItem = PlanItem & { exercise: Exercise };

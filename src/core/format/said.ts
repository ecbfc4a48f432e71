import { z } from 'zod';
import { JOINS, Said, SaidValue } from '../words/said';
import { inEnglish } from './say';

const Text = z.string().trim().max(500);
/** What is said may stand in what is said, so deep at most: a body that nests for ever is refused. */
const DEEPEST = 3;

/** Something said with so many levels inside it. The names of its gaps are ours. */
function shapeOf(inside: number): z.ZodType<Said> {
  if (inside === 0) return Text;
  const Inner = shapeOf(inside - 1);
  const Value: z.ZodType<SaidValue> = z.union([
    z.number(),
    Inner,
    z.strictObject({ note: z.number(), flats: z.boolean().optional() }),
    z.strictObject({ key: z.number() }),
    z.strictObject({ own: Text }),
    z.strictObject({ all: z.array(Inner).max(20), as: z.enum(JOINS) }),
  ]);
  return z.union([Text, z.strictObject({ says: Text, with: z.record(z.string().max(20), Value) })]);
}

/** Whether a message can be read and all its gaps are filled: one that can't would break the page that says it. */
function canBeSaid(what: Said): boolean {
  try {
    inEnglish(what);
    return true;
  } catch {
    return false;
  }
}

/** What is said, as it is sent, kept and taken along; a sentence of somebody's own, or of an earlier version, is text. */
export const SaidShape = shapeOf(DEEPEST).refine(canBeSaid, 'What is said can’t be read as a message, or nothing fills one of its gaps.');

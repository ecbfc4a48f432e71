import { CONNECTORS } from './shelf/connectors';
import { GENTLE } from './shelf/gentle';
import { HOLDS } from './shelf/holds';
import { SCALES } from './shelf/scales';
import { SIRENS } from './shelf/sirens';
import { STRAWS } from './shelf/straws';
import { TOGGLES } from './shelf/toggles';
import { UPPER } from './shelf/upper';
import type { Exercise } from './types';

/** The shelf: patterns, keys and doses as teachers commonly give them (common practice, no source). */
export const SHELF: Exercise[] = [...SCALES, ...SIRENS, ...STRAWS, ...TOGGLES, ...HOLDS, ...CONNECTORS, ...GENTLE, ...UPPER];

const byId = new Map(SHELF.map((e) => [e.id, e]));

/** An exercise of the shelf. @throws RangeError for an unknown id. */
export function exerciseById(id: string): Exercise {
  const exercise = byId.get(id);
  if (!exercise) throw new RangeError(`There is no exercise "${id}" on the shelf.`);
  return exercise;
}

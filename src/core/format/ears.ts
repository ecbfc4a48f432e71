import { z } from 'zod';
import { PASS_NAMES } from '../ears/passes';
import { MarkShape } from './take';

const TimeS = MarkShape.shape.timeS;

/** One way of a slide. */
export const PassShape = z.object({ startS: TimeS, endS: TimeS, direction: MarkShape.shape.direction });

/** What is heard in it, and the last note before the change, where it is placed. */
export const PassWordShape = z.object({ name: z.enum(PASS_NAMES), midi: MarkShape.shape.midi.nullable() });

import { z } from 'zod';
import { IdShape } from './id';
import { BREAKS, Heard } from '../song/outcome';
import { LEVELS } from '../song/risks';
import { MARKS, Song } from '../song/types';
import { WAYS } from '../song/ways';

/** Most notes, and crotchets, of a song that is kept: an opera role's longest aria has a fifth of it. */
export const MOST_NOTES = 5000;
const MOST_BEATS = 20_000;
const MOST_BARS = 3000;

const Place = z.number().min(0).max(MOST_BEATS);
const Text = (most: number) => z.string().max(most);

/** A note of a melody (core/song/types.ts). */
const NoteShape = z.object({
  midi: z.number().int().min(20).max(110),
  start: Place,
  beats: z.number().gt(0).max(256),
  words: Text(60).default(''),
  slide: z.boolean().optional(),
  loud: z.enum(MARKS).optional(),
  breath: z.boolean().optional(),
});

export const SongTitle = z.string().trim().min(1).max(160);

/** A melody as it is kept and sent; notes one after another, never two at once. */
export const SongShape = z
  .object({
    title: SongTitle,
    style: Text(80).default(''),
    language: Text(16).default(''),
    meter: z.tuple([z.number().int().min(1).max(256), z.union([1, 2, 4, 8, 16, 32].map((n) => z.literal(n)))]).default([4, 4]),
    fifths: z.number().int().min(-7).max(7).default(0),
    tempi: z
      .array(z.object({ start: Place, tempo: z.number().min(10).max(500) }))
      .min(1)
      .max(1000),
    bars: z
      .array(z.object({ number: Text(12), start: Place, beats: z.number().gt(0).max(256) }))
      .min(1)
      .max(MOST_BARS),
    notes: z.array(NoteShape).min(1).max(MOST_NOTES),
  })
  .superRefine(({ notes, bars, tempi }, ctx) => {
    const fault = (message: string) => ctx.addIssue({ code: 'custom', message });
    if (notes.some((n, i) => i > 0 && n.start < notes[i - 1].start + notes[i - 1].beats - 1e-6))
      fault('two of its notes sound at once, or they are not in order');
    if (bars.some((b, i) => i > 0 && b.start <= bars[i - 1].start)) fault('its bars are not in order');
    if (tempi[0].start !== 0 || tempi.some((t, i) => i > 0 && t.start <= tempi[i - 1].start)) fault('its tempo marks are not in order');
  });

/** What a song holds is what the core reads. */
export type SongShape = z.infer<typeof SongShape>;
({}) as SongShape satisfies Song;

/** What a coach has decided about a song for one singer. */
export const ChosenShape = z.object({
  /** The key, semitones higher than written; null: not chosen yet. */
  semitones: z.number().int().min(-36).max(36).nullable().default(null),
  /** How a high phrase is taken, by the index of its first note. */
  ways: z.record(z.string().regex(/^\d{1,4}$/), z.enum(WAYS)).default({}),
  note: z.string().max(2000).default(''),
});
export type Chosen = z.infer<typeof ChosenShape>;

/** A key a take was sung in, as it comes in an address. */
export const SungShape = z.object({ id: IdShape('song'), semitones: z.number().int().min(-36).max(36) });

export const PredictedShape = z
  .array(z.object({ bar: z.number().int().min(0).max(MOST_BARS), called: z.enum(LEVELS), leaps: z.literal(true).optional() }))
  .max(MOST_BARS);

/** What was heard of a take of a song. */
export const HeardShape = z.object({
  engine: z.string().max(60),
  /** Null: it could not be laid over the song. */
  outcome: z
    .object({
      semitones: z.number().int(),
      tuningCents: z.number(),
      pace: z.number(),
      jumps: z.number().int(),
      notes: z
        .array(
          z.object({
            note: z.number().int(),
            startS: z.number(),
            endS: z.number(),
            cents: z.number().nullable(),
            head: z.number().nullable().optional(),
          }),
        )
        .max(2 * MOST_NOTES),
      bars: z
        .array(
          z.object({
            bar: z.number().int(),
            called: z.enum(LEVELS),
            sung: z.boolean(),
            untold: z.literal(true).optional(),
            broke: z.object({ name: z.enum(BREAKS), midi: z.number(), timeS: z.number() }).nullable(),
            inTune: z.number(),
            notes: z.number().int(),
          }),
        )
        .max(MOST_BARS),
    })
    .nullable(),
}) satisfies z.ZodType<Heard>;

import { z } from 'zod';
import { STRANDS } from '../exercise/types';
import { SCHOOL_IDS } from '../map/schools';
import { CrossingName, FINDING_NAMES, PIN_NAMES, VoiceMap } from '../map/types';
import { withPins } from '../map/pins';
import { parseNote } from '../music/pitch';
import { VOICE_TYPES } from '../plan/voice-types';

/** A note as MIDI (60, 60.5) or by name ("C4", "Bb3"). */
const Note = z
  .union([z.number().min(20).max(110), z.string().max(6)])
  .transform((given, ctx) => {
    if (typeof given === 'number') return given;
    try {
      return parseNote(given);
    } catch (error) {
      ctx.addIssue({ code: 'custom', message: (error as Error).message });
      return z.NEVER;
    }
  })
  .describe('A note: MIDI (60, fractions allowed) or its name ("C4", "Bb3")');
const Ends = z.object({ low: Note, high: Note });
const Share = z.number().min(0).max(1);

/** A voice described by its map, for the command line (docs/voice.schema.json). Everything but the range may be left out. */
export const VoiceFile = z.object({
  range: z.object({
    touched: Ends.describe('Lowest and highest note ever sung'),
    usable: Ends.nullable().default(null).describe('Held comfortably; null: not known'),
  }),
  passaggi: z
    .array(
      z.object({
        up: Note.nullable().default(null).describe('Last note before the change, going up'),
        down: Note.nullable().default(null).describe('Last note before the change, coming down'),
        name: z.enum(['flip', 'toggle', 'blended'] satisfies CrossingName[]),
        confidence: Share.default(0.9),
      }),
    )
    .max(4)
    .default([]),
  findings: z.array(z.object({ name: z.enum(FINDING_NAMES), midi: Note, confidence: Share.default(0.9) })).default([]),
  speaking: Note.nullable().default(null).describe('Speaking pitch'),
  pins: z.partialRecord(z.enum(PIN_NAMES), Note).default({}).describe('What the coach has set by hand; it goes before everything'),
  person: z
    .object({
      voiceType: z.enum(VOICE_TYPES.map((t) => t.id)).default('mezzo'),
    })
    .default({ voiceType: 'mezzo' }),
  school: z.enum(SCHOOL_IDS).default('classical'),
  grades: z.partialRecord(z.enum(STRANDS), z.number().int().min(1).max(6)).default({}),
});
export type VoiceFile = z.infer<typeof VoiceFile>;

/** The map that a voice file describes, with its pins on it. */
export function mapOfVoice({ range, passaggi, findings, speaking, pins }: VoiceFile): VoiceMap {
  const limit = (midi: number) => ({ midi, takeIds: [] });
  const ends = ({ low, high }: { low: number; high: number }) => ({ low: limit(low), high: limit(high) });
  const map: VoiceMap = {
    engine: 'described',
    takes: 1,
    extreme: ends(range.touched),
    usable: range.usable && ends(range.usable),
    passaggi: passaggi.flatMap(({ up, down, name, confidence }) => {
      const known = [up, down].filter((m) => m !== null);
      if (known.length === 0) return [];
      const midi = known.reduce((a, b) => a + b) / known.length;
      return [
        {
          midi,
          lowMidi: Math.min(...known),
          highMidi: Math.max(...known),
          upMidi: up,
          downMidi: down,
          up: { found: up === null ? 0 : 1, of: 1 },
          down: { found: down === null ? 0 : 1, of: 1 },
          widthSt: Math.max(...known) - Math.min(...known),
          name,
          confidence,
          impression: false,
          vowels: [],
          votes: [],
        },
      ];
    }),
    findings: findings.map((f) => ({ ...f, because: '', impression: false, takeIds: [] })),
    speakingMidi: speaking,
    levels: [],
    blend: [],
    evenness: null,
    insecure: [],
    vowelTurns: [],
    weight: null,
    calibrated: 0,
    pinned: {},
  };
  return withPins(
    map,
    Object.entries(pins).map(([what, midi]) => ({ what: what as (typeof PIN_NAMES)[number], midi: midi! })),
  );
}

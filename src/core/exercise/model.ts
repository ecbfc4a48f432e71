/** How a model sounds: as the exercise should, or as it should not. */
export const MANNERS = ['like-this', 'not-like-this'] as const;
export type Manner = (typeof MANNERS)[number];

/** A coach's own voice on an exercise, or on a phrase of a song (`modelledPhrase`), apart from its sound. */
export interface Model {
  id: string;
  exerciseId: string;
  manner: Manner;
  /** For one singer only; null: for everybody in the studio. */
  singerId: string | null;
}

/** So many are kept in one studio. */
export const MOST_MODELS = 150;

/** Where a model names its exercise, what models of a song's phrases begin with. */
export const modelledSong = (songId: string): string => `song:${songId}:`;

/** The same of one phrase, by its first note, in one key: what was sung in another key is no model of it. */
export const modelledPhrase = (songId: string, first: number, semitones: number): string => `${modelledSong(songId)}${first}:${semitones}`;

/** Of an exercise's models those a singer hears: made for them before made for all. */
export function modelsOf(models: readonly Model[], exerciseId: string, singerId: string | null): Partial<Record<Manner, Model>> {
  const own = models.filter((m) => m.exerciseId === exerciseId && (m.singerId === null || m.singerId === singerId));
  return Object.fromEntries(
    MANNERS.flatMap((manner) => {
      const of = own.filter((m) => m.manner === manner);
      const best = of.find((m) => m.singerId !== null) ?? of[0];
      return best ? [[manner, best]] : [];
    }),
  );
}

import { said } from '../../core/words/said';
import { keysFor as keysOfSong, octaveFor } from '../../core/song/keys';
import { exerciseFrom } from '../../core/song/work';
import { isLocked, type SongVoice } from '../../core/song/voice';
import type { Song } from '../../core/song/types';
import type { Chosen } from '../../core/format/song';
import type { Anchors } from '../../core/exercise/keys';
import type { Exercise } from '../../core/exercise/types';
import { Offer, offerOf, type VoiceToday } from '../../core/lesson/exercise-step';
import type { PlanItem } from '../../core/plan/types';

/** What could be sung now, under a heading. */
export interface OfferGroup {
  name: string;
  offers: Offer[];
}

export interface OwnSong {
  id: string;
  song: Song;
  chosen: Chosen;
}

/** Of one song so many phrases are offered, those that may go wrong first. */
const MOST_PHRASES = 4;

/**
 * All that could be sung now in this voice: what the week has, in its keys and pace; phrases of the singer's songs in the key that was
 * chosen; and the shelf.
 */
export function offersFor(
  {
    items,
    shelf,
    songs,
    voice,
  }: { items: readonly PlanItem[]; shelf: readonly Exercise[]; songs: readonly OwnSong[]; voice: SongVoice | null },
  anchors: Anchors,
  today: VoiceToday,
): OfferGroup[] {
  const byId = new Map(shelf.map((e) => [e.id, e]));
  const week = items.flatMap((it) => {
    const exercise = byId.get(it.exerciseId);
    return exercise ? [offerOf(exercise, anchors, today, it)] : [];
  });
  const groups = [
    { name: said('This week') as string, offers: week },
    ...(voice ? songs.map((own) => ({ name: own.song.title, offers: phrasesOf(own, voice, anchors, today) })) : []),
    {
      name: said('The shelf') as string,
      offers: shelf.filter((e) => !items.some((it) => it.exerciseId === e.id)).map((e) => offerOf(e, anchors, today)),
    },
  ];
  return groups.filter((g) => g.offers.length > 0);
}

/** A song's phrases as exercises, in the key chosen for the singer (else as written, in their octave), those that may go wrong first. */
function phrasesOf({ id, song, chosen }: OwnSong, voice: SongVoice, anchors: Anchors, today: VoiceToday): Offer[] {
  const semitones = chosen.semitones ?? octaveFor(song, voice);
  const key = keysOfSong(song, voice).find((k) => k.semitones === semitones);
  return (key?.phrases ?? [])
    .map((phrase, i) => ({ phrase, i }))
    .sort((a, b) => b.phrase.risk - a.phrase.risk || a.i - b.i)
    .slice(0, MOST_PHRASES)
    .map(({ phrase, i }) =>
      offerOf(
        exerciseFrom(song, phrase, { id: phraseId(id, i), semitones, anchors, upward: isLocked(voice), work: 'words' }),
        anchors,
        today,
      ),
    );
}

/** The same phrase of the same song is the same exercise, whenever it is offered: the song's own id with its last figures set to the phrase. */
const phraseId = (songId: string, phrase: number) => `${songId.slice(0, -4)}${(phrase + 1).toString(16).padStart(4, '0')}`;

/** What is looked for among all of it: every word somewhere in what an exercise is. */
export const found = (groups: readonly OfferGroup[], fits: (e: Exercise) => boolean): OfferGroup[] =>
  groups.map((g) => ({ ...g, offers: g.offers.filter((o) => fits(o.exercise)) })).filter((g) => g.offers.length > 0);

'use client';
import { said, Said } from '../../core/words/said';
import { FileMusic, Play, Printer, Square } from 'lucide-react';
import { Link } from '../kit/Link';
import { useCallback, useMemo, useState } from 'react';
import { useFollowAlong } from '../../audio/follow-along';
import { modelledPhrase, type Model } from '../../core/exercise/model';
import type { Chosen } from '../../core/format/song';
import { putIn } from '../../core/plan/arrange';
import { SONG_LINE } from '../../core/plan/plan';
import type { TimbreAxis } from '../../core/take/timbre';
import { songTask } from '../../core/sim/song';
import { songInTime, startingNote } from '../../core/song/in-time';
import { keysFor, octaveFor, saidKey } from '../../core/song/keys';
import type { BarOutcome } from '../../core/song/outcome';
import type { Song } from '../../core/song/types';
import { isLocked, SongVoice } from '../../core/song/voice';
import { barsName, keyBecause, keyInWords, songCautions } from '../../core/song/words';
import { exerciseFrom, Work } from '../../core/song/work';
import { say } from '../../sync/words';
import { ForCoaches, useMayChange } from '../kit/may-change';
import { Keys } from '../kit/Keys';
import { Notice } from '../kit/Notice';
import { ModelKeeper } from '../models/ModelKeeper';
import { ladderRange, ladderScale } from '../ladder/scale';
import { voiceType } from '../../core/plan/voice-types';
import { SongStaff } from '../staff/SongStaff';
import { PlanSource, usePlanning } from '../plan/usePlanning';
import { KeyList } from './KeyList';
import { PhraseDetail } from './PhraseDetail';
import { downloadSongMidi, downloadSongMusicXml } from './song-files';
import { SongPicture } from './SongPicture';
import { SingIt } from './SingIt';
import { SongTakeLine, SongTakes } from './SongTakes';
import { LEVEL_WORDS, WORK_WORDS } from './words-of-songs';
import { ask, requestOf } from '../../sync/ask';
import { useLanguage } from '../language/language';
import { saidOf } from '../../core/words/said-error';

export interface SongView extends PlanSource {
  singer: PlanSource['singer'] & { name: string; axis: TimbreAxis | null };
  voice: SongVoice | null;
  songId: string;
  song: Song;
  note: string;
  chosen: Chosen | null;
  models: Model[];
  takes: SongTakeLine[];
  allTakes: BarOutcome[];
}

const HEIGHT = 330;
/** Changes of a choice are sent when the hand has rested this long. */
const REST_MS = 400;
const NOTHING_CHOSEN: Chosen = { semitones: null, ways: {}, note: '' };

/** One song as one singer meets it: the melody on the ladder, every key, each phrase, the work made of it, and what came true. */
export function SongRoom({ view }: { view: SongView }) {
  const { t } = useLanguage();
  if (!view.voice)
    return (
      <div className="card max-w-2xl text-lg">
        <p>{t('A song is laid on the map of a voice, and there is none yet. Record a siren first.')}</p>
        <ForCoaches>
          <Link className="button-main mt-3" href={`/singers/${view.singer.id}/listen`}>
            {t('Listen to {name}', { name: view.singer.name })}
          </Link>
        </ForCoaches>
      </div>
    );
  return <Room view={view} voice={view.voice} />;
}

function Room({ view, voice }: { view: SongView; voice: SongVoice }) {
  const { t } = useLanguage();
  const { singer, song, songId, map } = view;
  const mayChange = useMayChange();
  const octave = useMemo(() => octaveFor(song, voice), [song, voice]);
  const keys = useMemo(() => keysFor(song, voice), [song, voice]);
  const [chosen, setChosen] = useState<Chosen>(view.chosen ?? NOTHING_CHOSEN);
  const [shownKey, setShownKey] = useState(chosen.semitones ?? octave);
  const key = keys.find((k) => k.semitones === shownKey) ?? keys.find((k) => k.original)!;
  const [selected, setSelected] = useState(() =>
    Math.max(
      0,
      key.phrases.findIndex((p) => p.level === 'risky'),
    ),
  );
  const phrase = key.phrases[Math.min(selected, key.phrases.length - 1)];
  const [take, setTake] = useState<string | null>(view.takes[0]?.takeId ?? null);
  const [beside, setBeside] = useState<string | null>(null);
  const [told, setTold] = useState('');
  /** What was told is that something is in the week now. */
  const [inWeek, setInWeek] = useState(false);
  const [problem, setProblem] = useState<Said | null>(null);
  const along = useFollowAlong();
  const planning = usePlanning(view, view.school);

  const scale = useMemo(() => {
    const reach = keys.filter((k) => Math.abs(k.semitones - octave) <= 3);
    const { low, high } = ladderRange(map, voiceType(singer.voiceType), [
      ...reach.map((k) => k.tessitura.lowest),
      ...reach.map((k) => k.tessitura.highest),
    ]);
    return ladderScale(low, high, HEIGHT);
  }, [keys, map, octave, singer.voiceType]);

  const decide = (change: Partial<Chosen>) => {
    const next = { ...chosen, ...change };
    setChosen(next);
    say(requestOf('PUT /api/singers/[singerId]/songs/[songId]', { params: { singerId: singer.id, songId }, body: next }), REST_MS);
  };
  const choose = (semitones: number) => {
    decide({ semitones });
    setInWeek(false);
    setTold(
      t('{key} is {name}’s key for {song}.', { key: saidKey(song, semitones), name: { own: singer.name }, song: { own: song.title } }),
    );
  };
  const step = (by: number) => {
    const next = keys.find((k) => k.semitones === key.semitones + by);
    if (next) setShownKey(next.semitones);
  };
  const hear = (all: boolean) =>
    along.sounding ? along.stop() : void along.play('song', songInTime(song, all ? key.phrases : [phrase], key.semitones));

  const work = async (how: Work) => {
    setProblem(null);
    const { p, items } = planning;
    if (!p) return;
    const exercise = exerciseFrom(song, phrase, {
      id: crypto.randomUUID(),
      semitones: key.semitones,
      anchors: p.anchors,
      upward: isLocked(voice),
      work: how,
    });
    const next = putIn(exercise, items, p, { instead: SONG_LINE });
    if (!next) return setProblem(t('In this key some of its notes are beyond what may be sung: choose another key first.'));
    try {
      await ask('PUT /api/exercises/[exerciseId]', { params: { exerciseId: exercise.id }, body: exercise });
      planning.setItems(next);
      if (chosen.semitones === null) decide({ semitones: key.semitones });
      setInWeek(true);
      setTold(t('{name} is in the week: {how}.', { name: { own: exercise.name }, how: WORK_WORDS[how] }));
    } catch (error) {
      setProblem(saidOf(error));
    }
  };

  const sung = useMemo(() => ({ id: songId, semitones: key.semitones }), [songId, key.semitones]);
  const { play: playAlong, stop: stopAlong } = along;
  // From the phrase that is shown on: who wants all of it begins at the first.
  const accompany = useMemo(
    () => ({
      begin: (onEnd: () => void) =>
        void playAlong(
          'piano',
          [startingNote(song, phrase, key.semitones), ...songInTime(song, key.phrases.slice(key.phrases.indexOf(phrase)), key.semitones)],
          onEnd,
        ),
      end: stopAlong,
    }),
    [key, phrase, playAlong, song, stopAlong],
  );
  const simulated = useCallback(() => songTask(song, key.semitones), [song, key.semitones]);
  const heardOf = (id: string | null) => view.takes.find((t) => t.takeId === id)?.heard?.outcome ?? null;
  const cautions = songCautions(
    keys[0],
    keys.find((k) => k.original)!,
    voice,
  );
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <h2 className="mr-auto text-xl font-bold">
          {song.title}{' '}
          <span className="font-normal text-soft">
            {t('in {key}, {moved}', { key: saidKey(song, key.semitones), moved: keyInWords(key, octave) })}
          </span>
        </h2>
        <span className="no-print flex flex-wrap gap-1">
          <button className="button px-3" onClick={() => hear(true)}>
            {along.sounding ? <Square aria-hidden size={16} /> : <Play aria-hidden size={16} />} {along.sounding ? t('Stop') : t('Hear it')}
          </button>
          <button
            className="button px-3"
            onClick={() => void downloadSongMusicXml(song, key.semitones)}
            title={t('The sheet in this key, as MusicXML')}
          >
            <FileMusic aria-hidden size={16} /> {t('MusicXML')}
          </button>
          <button
            className="button px-3"
            onClick={() => void downloadSongMidi(song, key.semitones)}
            title={t('The melody in this key, as MIDI')}
          >
            <FileMusic aria-hidden size={16} /> {t('MIDI')}
          </button>
          <button className="button px-3" onClick={() => print()} title={t('The sheet in this key, on paper or as a PDF')}>
            <Printer aria-hidden size={16} /> {t('Sheet')}
          </button>
          <Keys
            repeats
            shortcuts={[
              { key: ' ', says: said('plays the phrase, and stops'), act: () => hear(false) },
              { key: 'ArrowRight', says: said('next phrase'), act: () => setSelected((i) => Math.min(key.phrases.length - 1, i + 1)) },
              { key: 'ArrowLeft', says: said('phrase before'), act: () => setSelected((i) => Math.max(0, i - 1)) },
              { key: 'ArrowUp', says: said('a semitone higher'), act: () => step(1) },
              { key: 'ArrowDown', says: said('a semitone lower'), act: () => step(-1) },
              ...(mayChange
                ? [
                    { key: 'c', says: said('chooses this key'), act: () => choose(key.semitones) },
                    { key: 'w', says: said('puts the phrase into the week, on ng'), act: () => void work('ng') },
                  ]
                : []),
            ]}
          />
        </span>
      </div>
      {problem && <Notice>{t(problem)}</Notice>}
      {along.problem && <Notice>{t(along.problem)}</Notice>}
      <p role="status" className={told ? 'mb-2 font-semibold text-coach' : 'sr-only'}>
        {told}{' '}
        {inWeek && (
          <Link className="underline" href={`/singers/${singer.id}/plan`}>
            {t('See the week')}
          </Link>
        )}
      </p>
      <div className="no-print grid gap-4 lg:grid-cols-[minmax(0,1fr)_23rem]">
        <div className="flex min-w-0 flex-col gap-3">
          <SongPicture
            song={song}
            semitones={key.semitones}
            voice={voice}
            phrases={key.phrases}
            scale={scale}
            map={map}
            selected={Math.min(selected, key.phrases.length - 1)}
            onSelect={setSelected}
            heard={heardOf(take)}
            beside={take ? heardOf(beside) : null}
          />
          <p>
            <b className="first-letter:uppercase inline-block">{t(LEVEL_WORDS[key.level])}</b>: {t(keyBecause(key, keys, song, voice))}{' '}
            {t('{near} of {all} s lie within two semitones of a change; most of it from {low} to {high}.', {
              near: Math.round(key.atTheChangeS),
              all: Math.round(key.tessitura.seconds),
              low: { note: key.tessitura.low, flats: key.flats },
              high: { note: key.tessitura.high, flats: key.flats },
            })}
          </p>
          <section aria-label={t('Which key')} className="card">
            <div className="mb-2 flex flex-wrap items-center gap-2">
              <h2 className="flex-1 text-lg font-bold">{t('Which key')}</h2>
              <ForCoaches>
                <button
                  className="button px-3"
                  disabled={chosen.semitones === key.semitones}
                  onClick={() => choose(key.semitones)}
                  title="C"
                >
                  {chosen.semitones === key.semitones
                    ? t('{key} is chosen', { key: saidKey(song, key.semitones) })
                    : t('Choose {key}', { key: saidKey(song, key.semitones) })}
                </button>
              </ForCoaches>
            </div>
            <KeyList
              song={song}
              keys={keys}
              octave={octave}
              voice={voice}
              shown={key.semitones}
              chosen={chosen.semitones}
              onShow={setShownKey}
            />
            {cautions.length > 0 && (
              <ul className="mt-2 list-disc pl-5 text-sm">
                {cautions.map((c) => (
                  <li key={t(c)}>{t(c)}</li>
                ))}
              </ul>
            )}
          </section>
        </div>
        <aside className="flex flex-col gap-3">
          <nav aria-label={t('Phrases')} className="flex flex-wrap gap-1">
            {key.phrases.map((p, i) => (
              <button
                key={p.first}
                className={`min-h-9 rounded-lg border px-2 text-sm ${i === selected ? 'border-accent bg-card font-semibold' : 'border-line'}`}
                aria-current={i === selected}
                title={`${t(barsName(song, p.firstBar, p.lastBar))}: ${t(LEVEL_WORDS[p.level])}`}
                onClick={() => setSelected(i)}
              >
                {song.bars[p.firstBar].number}–{song.bars[p.lastBar].number}
                {p.level === 'risky' ? ' ▲' : p.level === 'some care' ? ' △' : ''}
              </button>
            ))}
          </nav>
          <PhraseDetail
            singerId={singer.id}
            song={song}
            semitones={key.semitones}
            phrase={phrase}
            voice={voice}
            way={chosen.ways[phrase.first] ?? null}
            takes={view.takes}
            onWay={(way) => decide({ ways: { ...chosen.ways, [phrase.first]: way } })}
            onWork={(how) => void work(how)}
            models={
              <ModelKeeper
                exercise={{
                  id: modelledPhrase(songId, phrase.first, key.semitones),
                  name: t(barsName(song, phrase.firstBar, phrase.lastBar)),
                }}
                singer={singer}
                models={view.models}
              />
            }
          />
          <ForCoaches>
            <SingIt
              singer={singer}
              sung={sung}
              simulated={simulated}
              heading={t('Sing it')}
              hint={t('The whole of it or any phrase, without piano in the room. Break off and begin again as you like.')}
              piano={accompany}
              onTaken={setTake}
            />
          </ForCoaches>
          <SongTakes
            singerId={singer.id}
            song={song}
            takes={view.takes}
            shown={take}
            onShow={(id) => {
              setTake(id);
              if (id === beside) setBeside(null);
            }}
            beside={beside}
            onBeside={setBeside}
            all={view.allTakes}
          />
        </aside>
      </div>
      <section aria-label={t('The sheet')} className="card mt-4 print:mt-0 print:border-0 print:p-0">
        <SongStaff song={song} semitones={key.semitones} voice={singer.voiceType} />
      </section>
    </>
  );
}

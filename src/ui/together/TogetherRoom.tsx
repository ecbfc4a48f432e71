'use client';
import { Play, Printer, Square } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { useFollowAlong } from '../../audio/follow-along';
import { notesInWords } from '../../core/exercise/keys';
import { renderKey } from '../../core/exercise/render';
import type { Exercise } from '../../core/exercise/types';
import type { OccasionId } from '../../core/plan/occasions';
import { type VoiceTypeId, VOICE_TYPES } from '../../core/plan/voice-types';
import { Choice } from '../kit/Choice';
import { ForCoaches } from '../kit/may-change';
import { Notice } from '../kit/Notice';
import { useLanguage } from '../language/language';
import { Staff } from '../staff/Staff';
import { GiveToAll } from './GiveToAll';
import { named } from './named';

interface Item {
  exercise: Exercise;
  keys: number[];
  sound: string;
  tempo: number;
  minutes: number;
}

interface Props {
  view: {
    singers: { id: string; name: string; part: string; voiceType: VoiceTypeId }[];
    chosen: string[];
    unheard: string[];
    resting: string[];
    voice: VoiceTypeId | null;
    octaveUnder: string[];
    range: { low: number; high: number } | null;
    /** The studio's day. */
    day: string;
    sets: { id: OccasionId; name: string; says: string; items: Item[] }[];
  };
}

/** Several voices at once, a section, a choir, a class: what all of them may sing, as sets in keys that suit everybody. */
export function TogetherRoom({ view: { singers, chosen, unheard, resting, voice, octaveUnder, range, day, sets } }: Props) {
  const { t } = useLanguage();
  const router = useRouter();
  const [busy, startTransition] = useTransition();
  /** As it was pressed, until the page knows. */
  const [asked, setAsked] = useState(chosen);
  const [setId, setSetId] = useState<OccasionId>('warm-up-8');
  const along = useFollowAlong();
  const choose = (ids: string[]) => {
    setAsked(ids);
    startTransition(() => router.replace(ids.length ? `/together?with=${ids.join(',')}` : '/together', { scroll: false }));
  };
  const toggle = (id: string) => choose(asked.includes(id) ? asked.filter((a) => a !== id) : [...asked, id]);
  /** From the highest down, as choirs count. */
  const sections = [...VOICE_TYPES]
    .reverse()
    .map((type) => ({ type, of: singers.filter((s) => s.voiceType === type.id) }))
    .filter(({ of }) => of.length > 0);
  const set = sets.find((s) => s.id === setId) ?? sets[0];
  return (
    <main className="mx-auto grid max-w-[1240px] items-start gap-4 px-4 py-4 md:grid-cols-[19rem_1fr] print:block print:p-0">
      <section aria-labelledby="who" className="no-print flex flex-col gap-3">
        <h1 className="text-2xl font-bold">{t('Several together')}</h1>
        <p className="text-soft">{t('A section, a choir, a class: tick who sings, and everything stays in everybody’s voice.')}</p>
        <fieldset className="card flex flex-col gap-3 p-3">
          <legend id="who" className="sr-only">
            {t('Who sings')}
          </legend>
          {sections.map(({ type, of }) => {
            const all = of.every((s) => asked.includes(s.id));
            return (
              <div key={type.id}>
                <div className="flex items-center justify-between">
                  <h2 className="text-sm text-soft">{t(type.name)}</h2>
                  {of.length > 1 && (
                    <button
                      className="min-h-9 px-2 text-sm underline"
                      aria-label={t(all ? 'Nobody of: {section}' : 'All of: {section}', { section: type.name })}
                      onClick={() => choose([...asked.filter((id) => !of.some((s) => s.id === id)), ...(all ? [] : of.map((s) => s.id))])}
                    >
                      {all ? t('nobody') : t('all')}
                    </button>
                  )}
                </div>
                {of.map((s) => (
                  <label key={s.id} className="flex min-h-11 cursor-pointer items-center gap-3">
                    <input type="checkbox" className="size-5 accent-accent" checked={asked.includes(s.id)} onChange={() => toggle(s.id)} />
                    <span className="font-semibold">{s.name}</span>
                  </label>
                ))}
              </div>
            );
          })}
        </fieldset>
      </section>
      <section aria-label={t('What they sing')} aria-busy={busy} className={`flex flex-col gap-3 ${busy ? 'opacity-60' : ''}`}>
        {chosen.length === 0 ? (
          <p className="card text-lg">{t('Nobody is ticked yet.')}</p>
        ) : (
          <>
            <div className="card flex flex-col gap-1" role="status">
              <p className="text-lg">
                {range
                  ? t('All of them have the notes from {low} to {high}.', { low: { note: range.low }, high: { note: range.high } })
                  : t('No note lies in all of these voices: take fewer, or one section after another.')}
              </p>
              {octaveUnder.length > 0 && <p>{t('An octave under what is written: {names}.', { names: named(octaveUnder) })}</p>}
              {unheard.length > 0 && <p>{t('Not heard yet, so left out: {names}.', { names: named(unheard) })}</p>}
              {resting.length > 0 && (
                <p className="font-semibold text-warn">
                  {t('Told of trouble today, so left out: {names}. They listen.', {
                    names: named(resting),
                  })}
                </p>
              )}
            </div>
            {set && (
              <>
                <div className="no-print flex flex-wrap items-end gap-3">
                  <Choice label={t('Set')} value={set.id} options={sets.map((s) => [s.id, s.name] as const)} onChange={setSetId} />
                  <button className="button" onClick={() => print()}>
                    <Printer aria-hidden size={18} /> {t('Print')}
                  </button>
                  <ForCoaches>
                    <GiveToAll key={`${set.id} ${chosen.join()}`} singerIds={chosen} set={set.id} today={day} />
                  </ForCoaches>
                </div>
                <h2 className="text-xl font-bold">{t(set.name)}</h2>
                <p className="-mt-2 text-soft">{t(set.says)}</p>
                {along.problem && <Notice>{t(along.problem)}</Notice>}
                <ol className="flex flex-col gap-3">
                  {set.items.map((item, i) => (
                    <TogetherItem key={item.exercise.id} number={i + 1} item={item} voice={voice!} along={along} />
                  ))}
                </ol>
              </>
            )}
            {!set && range && (
              <p className="card text-lg">{t('Nothing of it suits all of them: take fewer, or one section after another.')}</p>
            )}
          </>
        )}
      </section>
    </main>
  );
}

function TogetherItem({
  number,
  item: { exercise, keys, sound, tempo, minutes },
  voice,
  along: { sounding, play, stop },
}: {
  number: number;
  item: Item;
  voice: VoiceTypeId;
  along: ReturnType<typeof useFollowAlong>;
}) {
  const { t } = useLanguage();
  const playing = sounding?.id === exercise.id;
  return (
    <li className="card break-inside-avoid print:border-0 print:border-t print:px-0 print:py-1" data-testid="together-item">
      <h3 className="text-lg font-bold">
        {number}. {t(exercise.name)} <span className="font-normal">{t('on “{sound}”', { sound })}</span>
      </h3>
      <Staff exercise={exercise} tonic={playing ? keys[sounding.key] : keys[0]} voice={voice} />
      <p className="text-sm">
        {t('{minutes} min · ♩ = {tempo} · {count, plural, one {key} other {keys}} {keys}', {
          minutes,
          tempo,
          count: keys.length,
          keys: notesInWords(keys),
        })}
      </p>
      <p>{t(exercise.how)}</p>
      {exercise.caution && <p className="text-sm font-semibold">{t(exercise.caution)}</p>}
      <button
        className="button no-print mt-2"
        onClick={() =>
          playing
            ? stop()
            : void play(
                exercise.id,
                keys.map((key) => renderKey(exercise, key, tempo)),
              )
        }
      >
        {playing ? <Square aria-hidden size={18} /> : <Play aria-hidden size={18} />} {playing ? t('Stop') : t('Play through the keys')}
      </button>
    </li>
  );
}

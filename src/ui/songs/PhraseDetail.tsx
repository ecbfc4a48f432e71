'use client';
import { Link } from '../kit/Link';
import type { PhraseRisk } from '../../core/song/risks';
import type { Song } from '../../core/song/types';
import { isHigh, Way, waysFor } from '../../core/song/ways';
import type { SongVoice } from '../../core/song/voice';
import { barName, barsName, riskInWords } from '../../core/song/words';
import { namesFlats } from '../../core/song/written';
import { Work, WORKS } from '../../core/song/work';
import { ForCoaches, useMayChange } from '../kit/may-change';
import { PhraseTakes } from './PhraseTakes';
import type { SongTakeLine } from './SongTakes';
import { FIT_WORDS, LEVEL_WORDS, WORK_WORDS } from './words-of-songs';
import { useLanguage } from '../language/language';

/** Takes shown as evidence of a change at most. */
const MOST_TAKES = 4;

/** One phrase: why it may go wrong and which takes say so, how a high one can be taken, and the work that is made of it. */
export function PhraseDetail({
  singerId,
  song,
  semitones,
  phrase,
  voice,
  way,
  takes,
  onWay,
  onWork,
  models,
}: {
  singerId: string;
  song: Song;
  semitones: number;
  phrase: PhraseRisk;
  voice: SongVoice;
  way: Way | null;
  takes: readonly SongTakeLine[];
  onWay: (way: Way) => void;
  onWork: (work: Work) => void;
  /** The coach's own voice on it. */
  models: React.ReactNode;
}) {
  const { t } = useLanguage();
  const mayChange = useMayChange();
  const evidence = [
    ...new Set(
      phrase.risks.flatMap((r) =>
        r.change !== undefined ? voice.changes[r.change].takeIds : Object.values(voice.findings).flatMap((f) => f.takeIds),
      ),
    ),
  ].slice(0, MOST_TAKES);
  return (
    <section aria-label={t('The phrase')} className="card flex flex-col gap-3">
      <h2 className="text-lg font-bold">
        {capital(t(barsName(song, phrase.firstBar, phrase.lastBar)))}: {t(LEVEL_WORDS[phrase.level])}
      </h2>
      {phrase.risks.length === 0 ? (
        <p>{t('Nothing in it that this voice is known to have trouble with.')}</p>
      ) : (
        <ul className="list-disc pl-5 text-sm">
          {phrase.risks.slice(0, 5).map((r, i) => (
            <li key={i}>
              {capital(t(barName(song, r.bar)))}: {t(riskInWords(r, voice, namesFlats(song, semitones)))}.
            </li>
          ))}
        </ul>
      )}
      {evidence.length > 0 && (
        <p className="text-sm text-soft">
          {t('Heard in:')}{' '}
          {evidence.map((id, i) => (
            <span key={id}>
              {i > 0 && ', '}
              <Link className="underline" href={`/singers/${singerId}/takes/${id}`}>
                {t('take {n}', { n: i + 1 })}
              </Link>
            </span>
          ))}
        </p>
      )}
      {isHigh(song, phrase, voice, semitones) && (
        <details>
          <summary className="min-h-9 cursor-pointer font-semibold">
            {way
              ? t('How to take it: {way}', { way: waysFor(song, phrase, voice, semitones).find((w) => w.way === way)!.name })
              : t('How to take it')}
          </summary>
          <fieldset>
            <legend className="sr-only">{t('How to take it')}</legend>
            <div className="flex flex-col gap-1">
              {waysFor(song, phrase, voice, semitones).map((w) => (
                <label key={w.way} className="flex gap-2 rounded-lg border border-line px-2 py-1 text-sm has-checked:border-accent">
                  <input
                    type="radio"
                    name={`way-${phrase.first}`}
                    className="mt-1"
                    checked={way === w.way}
                    disabled={!mayChange}
                    onChange={() => onWay(w.way)}
                  />
                  <span>
                    <b>{t(w.name)}</b>, {t(w.sounds)}: <i>{t(FIT_WORDS[w.fit])}</i>; {t(w.says)}.
                    {way === w.way && (
                      <span className="block text-soft">
                        {t(w.dose)} {t(w.caution)}
                      </span>
                    )}
                  </span>
                </label>
              ))}
            </div>
          </fieldset>
        </details>
      )}
      {models}
      <PhraseTakes song={song} phrase={phrase} voice={voice} way={way} takes={takes} />
      <ForCoaches>
        <div>
          <h3 className="mb-1 font-semibold">{t('Work on it: an exercise in the week, one press')}</h3>
          <div className="flex flex-wrap gap-1">
            {WORKS.map((work) => (
              <button key={work} className="button px-3" onClick={() => onWork(work)}>
                {t(WORK_WORDS[work])}
              </button>
            ))}
          </div>
        </div>
      </ForCoaches>
    </section>
  );
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

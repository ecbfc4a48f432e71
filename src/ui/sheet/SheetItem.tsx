'use client';
import { exerciseHow, exerciseName } from '../../core/exercise/of-song';
import { Play, Square } from 'lucide-react';
import { useState } from 'react';
import type { useFollowAlong } from '../../audio/follow-along';
import { notesInWords } from '../../core/exercise/keys';
import { renderKey } from '../../core/exercise/render';
import type { Exercise } from '../../core/exercise/types';
import type { VoiceMap } from '../../core/map/types';
import type { PlanItem } from '../../core/plan/types';
import { changeIn } from '../../core/plan/voice';
import type { VoiceTypeId } from '../../core/plan/voice-types';
import { daysInWords } from '../plan/days';
import { Staff } from '../staff/Staff';
import { KeyStrip } from './KeyStrip';
import { useLanguage } from '../language/language';

const TEMPO_REACH = 20;

/** One exercise of a practice sheet. */
export function SheetItem({
  number,
  item,
  exercise,
  startsOn,
  voice,
  map,
  range,
  along: { sounding, play, stop },
}: {
  number: number;
  item: PlanItem;
  exercise: Exercise;
  startsOn: string;
  voice: VoiceTypeId;
  map: VoiceMap;
  range: { low: number; high: number };
  along: ReturnType<typeof useFollowAlong>;
}) {
  const { language, keyNote, t } = useLanguage();
  const [tempo, setTempo] = useState(item.tempo);
  const playing = sounding?.id === exercise.id;
  const shownKey = playing ? item.keys[sounding.key] : item.keys[0];
  return (
    <li className="card break-inside-avoid print:rounded-none print:border-0 print:border-t print:px-0 print:py-1" data-testid="sheet-item">
      <div className="grid gap-x-5 md:grid-cols-[1fr_17rem] print:grid-cols-[1fr_64mm] print:gap-x-3">
        <div>
          <h2 className="text-lg font-bold print:text-base">
            {number}. {t(exerciseName(exercise))} <span className="font-normal">{t('on “{sound}”', { sound: item.sound })}</span>
          </h2>
          <Staff exercise={exercise} tonic={shownKey} voice={voice} leaning={{ sound: item.sound, changeMidi: changeIn(map, voice) }} />
        </div>
        <div className="text-sm">
          <p className="font-bold">
            {t('{minutes} min, {timesADay}× a day · ♩ = {tempo}', { minutes: item.minutes, timesADay: item.timesADay, tempo })}
          </p>
          <p>
            {t('{days} · {count, plural, one {key} other {keys}} {keys}', {
              days: daysInWords(item.days, startsOn, language),
              count: item.keys.length,
              keys: notesInWords(item.keys),
            })}
          </p>
          {item.straws && <p className="font-semibold">{t(item.straws)}</p>}
          <KeyStrip range={range} map={map} item={item} exercise={exercise} current={playing ? shownKey : null} />
        </div>
      </div>
      <p className="print:text-[12px] print:leading-tight">{t(exerciseHow(exercise))}</p>
      {item.cues && (
        <p className="print:text-[12px] print:leading-tight">{t('Between the keys: {words}.', { words: item.cues.join('; ') })}</p>
      )}
      <p className="text-sm text-soft print:text-[11px] print:leading-tight">
        {t(item.reason)} <b>{t(item.caution)}</b>
      </p>
      <div className="no-print mt-2 flex flex-wrap items-center gap-3">
        {playing ? (
          <button className="button-main" onClick={stop}>
            <Square aria-hidden size={18} /> {t('Stop')}
          </button>
        ) : (
          <button
            className="button-main"
            onClick={() =>
              void play(
                exercise.id,
                item.keys.map((k) => renderKey(exercise, k, tempo)),
              )
            }
          >
            <Play aria-hidden size={18} /> {t('Play through the keys')}
          </button>
        )}
        <label className="flex items-center gap-2 text-sm">
          {t('Slower')}
          <input
            type="range"
            aria-label={t('Tempo of {name}', { name: exerciseName(exercise) })}
            min={Math.max(30, exercise.tempo[0] - TEMPO_REACH)}
            max={exercise.tempo[2] + TEMPO_REACH}
            step={2}
            value={tempo}
            onChange={(e) => (stop(), setTempo(e.target.valueAsNumber))}
          />
          {t('Faster')}
        </label>
        <p aria-live="polite" className="text-2xl font-bold" data-testid="sounding-key">
          {playing ? keyNote(shownKey) : ''}
        </p>
      </div>
    </li>
  );
}

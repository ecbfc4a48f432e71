'use client';
import type { Said } from '../../core/words/said';
import { Copy, Download, Pencil, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { useFollowAlong } from '../../audio/follow-along';
import { MEASURE_WORDS } from '../../core/plan/plan';
import { patternText } from '../../core/exercise/pattern';
import { renderKey } from '../../core/exercise/render';
import type { Model } from '../../core/exercise/model';
import { type Exercise, MATERIAL_WORDS } from '../../core/exercise/types';
import { schoolById } from '../../core/map/schools';
import { keyLadder } from '../../core/music/scale';
import { ForCoaches } from '../kit/may-change';
import { downloadExercise, downloadMidi, downloadMusicXml } from '../kit/notes-files';
import { FINDING_WORDS } from '../kit/words';
import { AIM_WORDS, FAMILY_WORDS, LOUDNESS_WORDS, PLACE_WORDS, ROLE_WORDS, STRAND_WORDS, weightWords } from '../kit/words-of-work';
import { HearIt } from '../kit/HearIt';
import { ModelKeeper } from '../models/ModelKeeper';
import { Staff } from '../staff/Staff';
import { CurvePicture } from './CurvePicture';
import { useLanguage } from '../language/language';

/** Keys to look at an exercise in, C3 to C5; heard are four from there. */
const TONICS = keyLadder(48, 72);
const HEARD_KEYS = 4;

/** One exercise of the shelf: how it goes, what it is for, and what can be made of it. */
export function ExerciseCard({
  exercise: e,
  models,
  shelf,
  own,
  onVariant,
  onEdit,
  onRemove,
}: {
  exercise: Exercise;
  models: readonly Model[];
  shelf: readonly Exercise[];
  own: boolean;
  onVariant: () => void;
  onEdit: () => void;
  onRemove: () => void;
}) {
  const { note, t } = useLanguage();
  const [tonic, setTonic] = useState(60);
  const along = useFollowAlong();
  const { sounding, problem } = along;
  const keys = keyLadder(tonic, tonic + HEARD_KEYS - 1);
  const list = (all: readonly Said[], as: 'and' | 'comma' | 'semicolon', none: string) =>
    all.length ? t('{all}', { all: { all, as } }) : none;
  const facts: [string, string][] = [
    [t('Sung on'), e.sounds.map((s) => t(s)).join(t(', then '))],
    [t('In'), t('{aim}, {place}', { aim: AIM_WORDS[e.aim], place: PLACE_WORDS[e.place] })],
    [t('Loudness'), t(LOUDNESS_WORDS[e.loudness])],
    [t('Weight'), t(weightWords(e.weight))],
    [t('Grade'), t('{grade} · {strand}', { grade: e.grade, strand: STRAND_WORDS[e.strand] })],
    [
      t('Tempo'),
      t('♩ = {slowest} to {fastest}, usually {usual}; a breath of {breath} between keys', {
        slowest: e.tempo[0],
        fastest: e.tempo[2],
        usual: e.tempo[1],
        breath: e.breathBeats,
      }),
    ],
    [t('Dose'), t('{minutes} min, {times} × a day', { minutes: e.minutes, times: e.timesADay })],
    [
      t('Needs'),
      list(
        e.needs.map((m) => MATERIAL_WORDS[m]),
        'and',
        t('nothing'),
      ),
    ],
    [
      t('First'),
      list(
        e.after.map((id) => shelf.find((x) => x.id === id)?.name ?? id),
        'comma',
        t('nothing'),
      ),
    ],
    [
      t('For'),
      list(
        e.suits.map((f) => FINDING_WORDS[f]),
        'comma',
        t('every voice'),
      ),
    ],
    [
      t('Not for'),
      list(
        e.avoid.map((f) => FINDING_WORDS[f]),
        'comma',
        t('nobody'),
      ),
    ],
    [
      t('Taught by'),
      list(
        e.schools.map((s) => schoolById(s).name),
        'semicolon',
        t('all schools'),
      ),
    ],
    [t('Succeeds when'), t(MEASURE_WORDS[e.measure])],
    [t('Pattern'), patternText(e.steps)],
  ];
  return (
    <article className="card flex flex-col gap-3" data-testid="exercise">
      <div className="flex flex-wrap items-center gap-2">
        <div className="min-w-0 flex-1 basis-64">
          <h2 className="text-xl font-bold">{t(e.name)}</h2>
          <p className="text-sm text-soft">
            {t(FAMILY_WORDS[e.family])} · {t(ROLE_WORDS[e.role])}
          </p>
        </div>
        <label className="flex items-center gap-2 text-sm text-soft">
          {t('Key')}
          <select className="field" value={tonic} onChange={(event) => setTonic(Number(event.target.value))}>
            {TONICS.map((t) => (
              <option key={t} value={t}>
                {note(t)}
              </option>
            ))}
          </select>
        </label>
        <HearIt along={along} id={e.id} keys={() => keys.map((k) => renderKey(e, k, e.tempo[1]))} className="button-main" />
      </div>
      {problem && <p role="alert">{t(problem)}</p>}
      <Staff exercise={e} tonic={sounding ? keys[sounding.key] : tonic} />
      <CurvePicture name={t(e.name)} sounding={renderKey(e, sounding ? keys[sounding.key] : tonic, e.tempo[1])} />
      <p className="text-lg">{t(e.how)}</p>
      {e.purpose && <p>{t('Because {purpose}.', { purpose: e.purpose })}</p>}
      {e.caution && <p className="font-semibold">{t(e.caution)}</p>}
      <ModelKeeper exercise={e} singer={null} models={models} />
      <dl className="grid grid-cols-[8rem_1fr] gap-x-3 gap-y-0.5 text-sm">
        {facts.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-soft">{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      <div className="flex flex-wrap gap-2">
        <ForCoaches>
          <button className="button" onClick={onVariant}>
            <Copy aria-hidden size={18} /> {t('Make a variant')}
          </button>
          {own && (
            <>
              <button className="button" onClick={onEdit}>
                <Pencil aria-hidden size={18} /> {t('Change')}
              </button>
              <button className="button" onClick={onRemove} title={t('What was assigned keeps it')}>
                <Trash2 aria-hidden size={18} /> {t('Take off the shelf')}
              </button>
            </>
          )}
        </ForCoaches>
        <button className="button" onClick={() => void downloadExercise(e)}>
          <Download aria-hidden size={18} /> {t('Share')}
        </button>
        <button className="button" onClick={() => void downloadMidi(e, keys, e.tempo[1])}>
          <Download aria-hidden size={18} /> {t('MIDI')}
        </button>
        <button className="button" onClick={() => void downloadMusicXml(e, { keys, tempo: e.tempo[1], sound: e.sounds[0] })}>
          <Download aria-hidden size={18} /> {t('MusicXML')}
        </button>
      </div>
    </article>
  );
}

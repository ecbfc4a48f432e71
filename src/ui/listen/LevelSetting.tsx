'use client';
import { useLanguage } from '../language/language';
import { memo, useState } from 'react';
import { Input, openMicrophone, openSound } from '../../audio/input';
import { CALIBRATOR_DB } from '../../core/signal/level';
import { Choice } from '../kit/Choice';
import { Notice } from '../kit/Notice';
import { TOLD_AT_CM, useLevelSetting } from './level-setting';
import { chosenMicrophone, Source } from './sources';
import type { Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

const DISTANCES = [10, 15, 20, 30, 40, 50, 75, 100];
const NOTHING = { onLive() {}, onLost() {}, onUnkept() {} };
const STAND_IN = { hz: 1000, amplitude: 0.1, seconds: 3, sampleRate: 44100 };

/** The microphone, or a stand-in for a calibrator on it: a tone as such a device would give. */
function openCalibrated(source: Source): Promise<Input> {
  if (source === 'microphone') return openMicrophone(chosenMicrophone(), NOTHING);
  const { hz, amplitude, seconds, sampleRate } = STAND_IN;
  const samples = Float32Array.from({ length: seconds * sampleRate }, (_, i) => amplitude * Math.sin((2 * Math.PI * hz * i) / sampleRate));
  return openSound({ samples, sampleRate }, NOTHING, () => {});
}

/** Setting an input so that its level is told in decibels of sound pressure: by a calibrator, once, and the distance. */
export const LevelSetting = memo(function LevelSetting({ source }: { source: Source }) {
  const { t } = useLanguage();
  const setting = useLevelSetting(source);
  const [measuring, setMeasuring] = useState(false);
  const [problem, setProblem] = useState<Said | null>(null);
  const measure = async () => {
    setMeasuring(true);
    setProblem(null);
    let input: Input | undefined;
    try {
      input = await openCalibrated(source);
      const reading = await input.calibrate();
      if ('reason' in reading) setProblem(reading.reason);
      else setting.setCalibrated(reading.levelDb, CALIBRATOR_DB);
    } catch (error) {
      setProblem(saidOf(error));
    } finally {
      input?.close();
      setMeasuring(false);
    }
  };
  return (
    <details>
      <summary className="min-h-11 cursor-pointer content-center font-semibold">{t('Level in decibels')}</summary>
      <p className="text-sm text-soft">
        {setting.offsetDb === null
          ? t(
              'Set a sound calibrator ({db} dB at 1 kHz) on the microphone, switch it on and measure. Until then the level is told relative to the loudest this input can take.',
              { db: CALIBRATOR_DB },
            )
          : t('Calibrated: told as dB(A) at {cm} cm from the mouth. Leave the input’s gain as it is, or measure again.', {
              cm: TOLD_AT_CM,
            })}
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-2">
        <button className="button" disabled={measuring} onClick={() => void measure()}>
          {measuring
            ? t('Listening to the tone …')
            : source === 'simulated'
              ? t('Measure a simulated calibrator')
              : t('Measure the calibrator')}
        </button>
        {setting.offsetDb !== null && (
          <button className="button" onClick={setting.forget}>
            {t('Forget it')}
          </button>
        )}
        <Choice
          label={t('Microphone to mouth')}
          value={String(setting.distanceCm)}
          options={DISTANCES.map((cm) => [String(cm), `${cm} cm`] as const)}
          onChange={(cm) => setting.setDistanceCm(Number(cm))}
        />
      </div>
      {problem && <Notice>{t(problem)}</Notice>}
    </details>
  );
});

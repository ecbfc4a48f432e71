'use client';
import { said, Said } from '../../core/words/said';
import { ArrowRight, Check, Play, Square } from 'lucide-react';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useClip } from '../../audio/clip';
import { makeTrial } from '../../core/ears/trial';
import { EAR_TASKS, EarTask, Trial } from '../../core/ears/types';
import { Keys } from '../kit/Keys';
import { Notice } from '../kit/Notice';
import type { Shortcut } from '../kit/useShortcuts';
import { soundOf } from './sound-of';
import { useEars } from './useEars';
import { choiceInWords, levelInWords, standingInWords, TASK_WORDS } from './words';
import { useLanguage } from '../language/language';
import { saidOf } from '../../core/words/said-error';

const newSeed = () => Math.floor(Math.random() * 2 ** 31);

/**
 * An ear, trained and measured: a simulated voice sings, the listener says what was there, and is told; from plain to hard. `gentle`, for
 * singers: as hard as they are right, without figures.
 */
export function MadeVoices({ tasks = EAR_TASKS, gentle = false }: { tasks?: readonly EarTask[]; gentle?: boolean }) {
  const { t } = useLanguage();
  const { records, answer, forget } = useEars();
  const [task, setTask] = useState<EarTask>(tasks[0]);
  const [trial, setTrial] = useState<Trial | null>(null);
  const [given, setGiven] = useState<number | null>(null);
  const [problem, setProblem] = useState<Said | null>(null);
  const sound = useRef<{ trial: Trial; made: Promise<Blob> } | null>(null);
  const clip = useClip();
  const record = records[task];

  const hear = useCallback(
    async (of: Trial) => {
      setProblem(null);
      if (sound.current?.trial !== of) sound.current = { trial: of, made: soundOf(of) };
      try {
        await clip.play('trial', await sound.current.made);
      } catch (error) {
        setProblem(saidOf(error));
      }
    },
    [clip],
  );
  const next = () => {
    const made = makeTrial(task, record.level, newSeed());
    setGiven(null);
    setTrial(made);
    void hear(made);
  };
  const choose = (to: EarTask) => {
    clip.stop();
    setTask(to);
    setTrial(null);
    setGiven(null);
  };
  const say = (choice: number) => {
    if (!trial || given !== null) return;
    setGiven(choice);
    answer(task, choice === trial.right);
  };
  const isRight = trial && given === trial.right;
  const main = trial && given === null ? () => (clip.playing ? clip.stop() : void hear(trial)) : next;
  const shortcuts: Shortcut[] = [
    { key: ' ', says: said('plays; after an answer, the next one'), act: main },
    { key: 'r', says: said('plays it once more'), act: trial ? () => void hear(trial) : null },
    ...(trial?.choices ?? []).map((c, i): Shortcut => ({ key: String(i + 1), says: choiceInWords(c), act: () => say(i) })),
  ];
  const nextButton = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (given !== null) nextButton.current?.focus();
  }, [given]);

  return (
    <>
      {!gentle && (
        <div className="flex items-start gap-2">
          <p className="flex-1 text-soft">
            {t(
              'A made voice sings; you say what was there, and are told. It grows harder while you are right, and settles where you are right four times in five: that is your measure.',
            )}
          </p>
          <Keys shortcuts={shortcuts} />
        </div>
      )}
      <div role="group" aria-label={t('What is asked')} className="flex flex-wrap gap-2">
        {tasks.map((of) => (
          <button
            key={of}
            className={`button ${of === task ? 'border-accent text-accent' : ''}`}
            aria-pressed={of === task}
            onClick={() => choose(of)}
          >
            {t(TASK_WORDS[of].name)}
          </button>
        ))}
      </div>
      <section aria-label={t(TASK_WORDS[task].name)} className="card flex flex-col gap-4">
        <h2 className="text-2xl font-bold">{t(TASK_WORDS[task].asks)}</h2>
        {!gentle && <p className="text-sm text-soft">{t('Now: {task}.', { task: levelInWords(task, trial?.level ?? record.level) })}</p>}
        {trial ? (
          <>
            <div className="grid grid-cols-2 gap-2 sm:grid-cols-4" role="group" aria-label={t('Your answer')}>
              {trial.choices.map((choice, i) => {
                const shown = given !== null && i === trial.right;
                return (
                  <button
                    key={i}
                    className={`button min-h-16 text-lg ${shown ? 'border-accent text-accent' : ''} ${given === i && !isRight ? 'line-through' : ''}`}
                    disabled={given !== null && !shown && given !== i}
                    aria-keyshortcuts={String(i + 1)}
                    onClick={() => say(i)}
                  >
                    {shown && <Check aria-hidden size={18} />} {t(choiceInWords(choice))}
                  </button>
                );
              })}
            </div>
            <p role="status" className="min-h-7 text-lg">
              {given !== null &&
                (isRight
                  ? t('Right.')
                  : t('The answer: {what}. Hear it once more, knowing that.', { what: choiceInWords(trial.choices[trial.right]) }))}
            </p>
            <div className="flex flex-wrap gap-2">
              <button
                className={given === null ? 'button-main min-h-14' : 'button min-h-14'}
                onClick={() => (clip.playing ? clip.stop() : void hear(trial))}
              >
                {clip.playing ? <Square aria-hidden size={18} /> : <Play aria-hidden size={18} />}{' '}
                {clip.playing ? t('Stop') : t('Once more')}
              </button>
              {given !== null && (
                <button ref={nextButton} className="button-main min-h-14" onClick={next}>
                  <ArrowRight aria-hidden size={18} /> {t('Next')}
                </button>
              )}
            </div>
          </>
        ) : (
          <button className="button-main min-h-16 self-start text-xl" onClick={next}>
            <Play aria-hidden /> {t('Play')}
          </button>
        )}
        {(problem ?? clip.problem) && <Notice>{t((problem ?? clip.problem)!)}</Notice>}
      </section>
      {!gentle && (
        <>
          <section aria-label={t('Your measure')} className="flex flex-wrap items-center gap-x-4 gap-y-1">
            <p className="min-w-0 flex-1" data-testid="measure">
              {record.answers === 0
                ? t('Nothing answered yet.')
                : t('{right} of {answers} right. {task}', {
                    right: record.right,
                    answers: record.answers,
                    task: standingInWords(task, record),
                  })}
            </p>
            {record.answers > 0 && (
              <button className="button" onClick={() => (choose(task), forget(task))}>
                {t('Begin anew')}
              </button>
            )}
          </section>
          <p className="text-sm text-soft">{t('The voices are made, so the answer is known; your measure stays in this browser.')}</p>
        </>
      )}
    </>
  );
}

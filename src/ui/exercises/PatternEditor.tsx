'use client';
import { ArrowDown, ArrowUp, Plus, Spline, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { parsePattern, patternText, stepAt, stepSemitones } from '../../core/exercise/pattern';
import type { Step } from '../../core/exercise/types';
import { Staff } from '../staff/Staff';
import { useLanguage } from '../language/language';
import type { Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

const LENGTHS: readonly (readonly [beats: number, name: string])[] = [
  [0.25, '¼'],
  [0.5, '½'],
  [0.75, '¾'],
  [1, '1'],
  [1.5, '1½'],
  [2, '2'],
  [3, '3'],
  [4, '4'],
];
const LOWEST_ST = -24;
const HIGHEST_ST = 36;

/**
 * A pattern on a real staff: press a note to take it, then the arrows move it by degree (with Shift by semitone), the lengths
 * set it, S slides it into the next, Insert adds one after it, Delete takes it out. The same as text beneath.
 */
export function PatternEditor({ steps, tonic, onChange }: { steps: Step[]; tonic: number; onChange: (steps: Step[]) => void }) {
  const { t } = useLanguage();
  const [at, setAt] = useState(0);
  const [text, setText] = useState<string | null>(null);
  const [problem, setProblem] = useState<Said | null>(null);
  const chosen = Math.min(at, steps.length - 1);
  const step = steps[chosen];

  const put = (next: Step[]) => {
    setText(null);
    setProblem(null);
    // The last note has nothing to slide to.
    onChange(next.map((s, i) => (i === next.length - 1 && s.slide ? { ...s, slide: undefined } : s)));
  };
  const alter = (part: Partial<Step>) => put(steps.map((s, i) => (i === chosen ? { ...s, ...part } : s)));
  const toSemitones = (semitones: number) => {
    if (semitones < LOWEST_ST || semitones > HIGHEST_ST) return;
    const { degree, alter: sign } = stepAt(semitones, 1);
    alter({ degree, alter: sign });
  };
  const move = (by: 1 | -1, chromatic: boolean) =>
    chromatic ? toSemitones(stepSemitones(step) + by) : alter({ degree: Math.min(22, Math.max(-14, step.degree + by)), alter: undefined });
  const insert = () => {
    put([...steps.slice(0, chosen + 1), { ...step, slide: undefined }, ...steps.slice(chosen + 1)]);
    setAt(chosen + 1);
  };
  const remove = () => {
    if (steps.length === 1) return;
    put(steps.filter((_, i) => i !== chosen));
    setAt(Math.max(0, chosen - 1));
  };
  const onKey = (event: React.KeyboardEvent) => {
    const key = event.key;
    if (key === 'ArrowUp' || key === 'ArrowDown') move(key === 'ArrowUp' ? 1 : -1, event.shiftKey);
    else if (key === 'ArrowLeft' || key === 'ArrowRight')
      setAt(Math.min(steps.length - 1, Math.max(0, chosen + (key === 'ArrowRight' ? 1 : -1))));
    else if (key === 'Insert' || key === 'Enter') insert();
    else if (key === 'Delete' || key === 'Backspace') remove();
    else if (key === 's') alter({ slide: step.slide ? undefined : true });
    else return;
    event.preventDefault();
  };
  const write = (value: string) => {
    setText(value);
    try {
      const next = parsePattern(value);
      setProblem(null);
      onChange(next.map((s, i) => (i === next.length - 1 ? { ...s, slide: undefined } : s)));
    } catch (error) {
      setProblem(saidOf(error));
    }
  };
  return (
    <div className="flex flex-col gap-2">
      <div
        role="application"
        tabIndex={0}
        aria-label={t(
          'Pattern: {pattern}. Note {chosen} of {of}, degree {degree}. Arrows move it, Enter adds one, Delete takes it out, S slides.',
          { pattern: patternText(steps), chosen: chosen + 1, of: steps.length, degree: step.degree },
        )}
        onKeyDown={onKey}
        className="overflow-x-auto rounded-lg border border-line bg-card p-2"
        data-testid="pattern-editor"
      >
        <Staff exercise={{ name: t('The pattern'), steps }} tonic={tonic} selected={chosen} onSelect={setAt} />
      </div>
      <div className="flex flex-wrap items-center gap-1">
        <button
          className="button-small min-h-11 min-w-11"
          type="button"
          aria-label={t('Higher')}
          title={t('Higher (↑; with Shift a semitone)')}
          onClick={() => move(1, false)}
        >
          <ArrowUp aria-hidden size={18} />
        </button>
        <button
          className="button-small min-h-11 min-w-11"
          type="button"
          aria-label={t('Lower')}
          title={t('Lower (↓; with Shift a semitone)')}
          onClick={() => move(-1, false)}
        >
          <ArrowDown aria-hidden size={18} />
        </button>
        <button className="button-small min-h-11" type="button" title={t('A semitone up')} onClick={() => move(1, true)}>
          ♯
        </button>
        <button className="button-small min-h-11" type="button" title={t('A semitone down')} onClick={() => move(-1, true)}>
          ♭
        </button>
        <span role="group" aria-label={t('Length in crotchets')} className="flex flex-wrap gap-1">
          {LENGTHS.map(([beats, name]) => (
            <button
              key={beats}
              type="button"
              aria-pressed={step.beats === beats}
              aria-label={t('{beats} crotchets', { beats })}
              className={`min-h-11 min-w-9 rounded-md border text-sm ${step.beats === beats ? 'border-accent bg-accent text-accent-ink' : 'border-line'}`}
              onClick={() => alter({ beats })}
            >
              {t(name)}
            </button>
          ))}
        </span>
        <button
          type="button"
          aria-pressed={Boolean(step.slide)}
          disabled={chosen === steps.length - 1}
          className={`button-small min-h-11 ${step.slide ? 'border-accent' : ''}`}
          title={t('Slide into the next note (S)')}
          onClick={() => alter({ slide: step.slide ? undefined : true })}
        >
          <Spline aria-hidden size={18} /> {t('Slide')}
        </button>
        <button className="button-small min-h-11" type="button" title={t('A note after this one (Enter)')} onClick={insert}>
          <Plus aria-hidden size={18} /> {t('Note')}
        </button>
        <button
          className="button-small min-h-11 min-w-11"
          type="button"
          aria-label={t('Take this note out')}
          title={t('Delete')}
          disabled={steps.length === 1}
          onClick={remove}
        >
          <Trash2 aria-hidden size={18} />
        </button>
      </div>
      <label className="flex flex-col text-sm text-soft">
        {t('As text: degrees, ~ slides, b3 lowers, 5:2 lasts two crotchets')}
        <input
          className="field text-base"
          value={text ?? patternText(steps)}
          onChange={(e) => write(e.target.value)}
          onBlur={() => !problem && setText(null)}
        />
      </label>
      {problem && (
        <p role="alert" className="text-sm">
          {t(problem)}
        </p>
      )}
    </div>
  );
}

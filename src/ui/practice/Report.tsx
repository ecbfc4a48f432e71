'use client';
import { asKey } from '../../core/music/scale';
import { useState } from 'react';
import { MOST_EFFORT, Sign, SIGNS } from '../../core/plan/safety';
import { judgementInWords } from '../../core/judge/words';
import { type Done, FELT, type Felt, type Judged, LONGEST_WORD } from '../../core/practice/types';
import { VERDICT_NAMES, VERDICT_SIGNS, VERDICT_WORDS } from '../kit/verdict';
import { type ShortRecording, useShortRecording } from '../listen/useShortRecording';
import { SayIt } from './SayIt';
import { FELT_WORDS, SIGN_WORDS } from './words';
import { useLanguage } from '../language/language';

const LEVELS = Array.from({ length: 11 }, (_, i) => i);

/** What was told after an exercise. */
export type Told = Pick<Done, 'effort' | 'signs' | 'word' | 'spokenS' | 'felt' | 'lighter'>;

/** After an exercise: how hard it was, whether anything was wrong, where it was felt, and a word of the singer's own. */
export function Report({
  name,
  judged,
  straw,
  maySpeak,
  onTell,
  children,
}: {
  name: string;
  judged: Judged | null;
  /** Sung through a straw: whether it is lighter now is asked. */
  straw: boolean;
  /** Whether a word may be spoken to the coach: recording was agreed to. */
  maySpeak: boolean;
  /** With the word that was spoken, if one was. */
  onTell: (told: Told, spoken: ShortRecording | null) => void;
  children?: React.ReactNode;
}) {
  const { keyNote, t } = useLanguage();
  const [effort, setEffort] = useState<number | null>(null);
  const [signs, setSigns] = useState<Sign[]>([]);
  const [felt, setFelt] = useState<Felt[]>([]);
  const [lighter, setLighter] = useState<boolean | undefined>(undefined);
  const [word, setWord] = useState('');
  const [spoken, setSpoken] = useState<ShortRecording | null>(null);
  const recording = useShortRecording(setSpoken);
  return (
    <section className="card flex flex-col gap-4" aria-labelledby="report">
      <h2 id="report" className="text-2xl font-bold">
        {t('{name}: how was it?', { name })}
      </h2>
      {judged && (
        <div data-testid="judged">
          <p className="text-lg">
            <b>{t(VERDICT_WORDS[judged.verdict])}</b> {t(judgementInWords(judged))}
          </p>
          <ol className="mt-2 flex flex-wrap gap-1" aria-label={t('Each key')}>
            {judged.keys.map((k, i) => (
              <li
                key={i}
                aria-label={t('{key}: {verdict}', {
                  key: asKey(k.tonicMidi),
                  verdict: VERDICT_NAMES[k.verdict],
                })}
                className={`grid min-h-9 min-w-9 place-items-center rounded-md border px-1 text-sm ${k.verdict === 'yes' ? 'border-accent' : 'border-line text-soft'}`}
              >
                {keyNote(k.tonicMidi)}
                <span aria-hidden>{VERDICT_SIGNS[k.verdict]}</span>
              </li>
            ))}
          </ol>
        </div>
      )}
      {children}
      <fieldset>
        <legend className="mb-1">{t('Effort, 0 none to 10 the most there is')}</legend>
        <div className="grid grid-cols-6 gap-1">
          {LEVELS.map((level) => (
            <button
              key={level}
              aria-pressed={effort === level}
              className={`min-h-12 rounded-lg border-2 text-lg ${effort === level ? 'border-accent bg-accent text-accent-ink' : level > MOST_EFFORT ? 'border-band bg-card' : 'border-line bg-card'}`}
              onClick={() => setEffort(level)}
            >
              {level}
            </button>
          ))}
        </div>
      </fieldset>
      <fieldset>
        <legend className="mb-1">{t('Anything wrong?')}</legend>
        <div className="grid grid-cols-2 gap-1">
          <Taps options={SIGNS.filter((s) => s !== 'effort')} words={SIGN_WORDS} chosen={signs} onChange={setSigns} />
        </div>
      </fieldset>
      <fieldset>
        <legend className="mb-1">{t('Where did it buzz?')}</legend>
        <div className="grid grid-cols-3 gap-1">
          <Taps options={FELT} words={FELT_WORDS} chosen={felt} onChange={setFelt} />
        </div>
      </fieldset>
      {straw && (
        <fieldset>
          <legend className="mb-1">{t('Is singing lighter now?')}</legend>
          <div className="grid grid-cols-2 gap-1">
            <Tap on={lighter === true} onClick={() => setLighter(lighter === true ? undefined : true)}>
              {t('Lighter')}
            </Tap>
            <Tap on={lighter === false} onClick={() => setLighter(lighter === false ? undefined : false)}>
              {t('No lighter')}
            </Tap>
          </div>
        </fieldset>
      )}
      <label className="flex flex-col gap-1">
        {t('A word to your coach, or a question (if you like)')}
        <textarea
          className="field min-h-12 py-2 text-lg"
          rows={1}
          value={word}
          maxLength={LONGEST_WORD}
          onChange={(e) => setWord(e.target.value)}
        />
      </label>
      {maySpeak && <SayIt recording={recording} spoken={spoken} onTakeAway={() => setSpoken(null)} />}
      <button
        className="button-main min-h-14 text-lg"
        disabled={recording.state !== 'idle'}
        onClick={() =>
          onTell(
            {
              effort,
              signs,
              ...(word.trim() ? { word: word.trim() } : {}),
              ...(spoken ? { spokenS: spoken.seconds } : {}),
              ...(felt.length ? { felt } : {}),
              ...(lighter === undefined ? {} : { lighter }),
            },
            spoken,
          )
        }
      >
        {signs.length || word.trim() || spoken ? t('Tell it') : t('Fine')}
      </button>
    </section>
  );
}

/** Any of some things, each switched by a tap. */
function Taps<T extends string, Chosen extends string>({
  options,
  words,
  chosen,
  onChange,
}: {
  options: readonly (T & Chosen)[];
  words: Record<T, string>;
  chosen: readonly Chosen[];
  onChange: (chosen: Chosen[]) => void;
}) {
  const { t } = useLanguage();
  return options.map((option) => {
    const on = chosen.includes(option);
    return (
      <Tap key={option} on={on} onClick={() => onChange(on ? chosen.filter((c) => c !== option) : [...chosen, option])}>
        {t(words[option])}
      </Tap>
    );
  });
}

function Tap({ on, onClick, children }: { on: boolean; onClick: () => void; children: React.ReactNode }) {
  return (
    <button
      aria-pressed={on}
      className={`min-h-12 rounded-lg border-2 ${on ? 'border-accent bg-accent text-accent-ink' : 'border-line bg-card'}`}
      onClick={onClick}
    >
      {children}
    </button>
  );
}

import { said, Said } from '../../core/words/said';
import { ArrowRight, Check, Play, Square } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { soundKey } from '../../audio/keyboard';
import { useTakePlayer } from '../../audio/take-player';
import type { HeardBlind } from '../../contract/answers';
import { AskedPass, Ears, PASS_NAMES, PassName, PassWord } from '../../core/ears/passes';
import { ask } from '../../sync/ask';
import { Keys } from '../kit/Keys';
import { Notice } from '../kit/Notice';
import type { Shortcut } from '../kit/useShortcuts';
import { EarsCompared } from './EarsCompared';
import { PASS_WORDS, passInWords } from './words';
import { useLanguage } from '../language/language';
import { saidOf } from '../../core/words/said-error';

/** A pass is heard with this much before and after it, seconds. */
const AROUND_S = 0.25;
/** A note that is tried sounds so loud, 0..1, and so long, milliseconds. */
const LOUDNESS = 0.6;
const SOUNDS_MS = 700;

/** What was answered to a pass, and what others hear in it. */
interface Told extends Omit<HeardBlind, 'ears'> {
  /** Of the answer. */
  id: string;
  own: PassWord;
}

const notesOf = ({ lowestMidi, highestMidi }: AskedPass) => {
  const [low, high] = [Math.round(lowestMidi), Math.round(highestMidi)];
  return Array.from({ length: high - low + 1 }, (_, i) => low + i);
};

async function soundNote(midi: number): Promise<void> {
  await soundKey({ does: 'press', midi, velocity: LOUDNESS });
  setTimeout(() => void soundKey({ does: 'release', midi }).catch(() => undefined), SOUNDS_MS);
}

/** Ways of the studio's own slides, heard blind: the coach says what happens and where, then sees what the machine and others hear. */
export function OurTakes({ before }: { before: Ears }) {
  const { note, t } = useLanguage();
  const [ears, setEars] = useState(before);
  /** The one that is asked about first; null before any were drawn. */
  const [passes, setPasses] = useState<AskedPass[] | null>(null);
  const [name, setName] = useState<PassName | null>(null);
  const [midi, setMidi] = useState<number | null>(null);
  const [told, setTold] = useState<Told | null>(null);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<Said | null>(null);
  const player = useTakePlayer(false);
  const pass = passes?.[0];

  const hear = (of: AskedPass) => player.play(of.takeId, of.startS - AROUND_S, of.endS + AROUND_S);
  const during = async (work: () => Promise<void>) => {
    setProblem(null);
    setBusy(true);
    try {
      await work();
    } catch (error) {
      setProblem(saidOf(error));
    } finally {
      setBusy(false);
    }
  };
  const next = () =>
    during(async () => {
      player.stop();
      const left = passes && passes.length > 1 ? passes.slice(1) : await ask('GET /api/ears/passes');
      setPasses(left);
      setName(null);
      setMidi(null);
      setTold(null);
      if (left.length > 0) hear(left[0]);
    });
  const say = (own: PassWord) =>
    during(async () => {
      const { takeId, startS, endS, direction } = pass!;
      const body = { id: crypto.randomUUID(), takeId, startS, endS, direction, word: own };
      const heard = await ask('PUT /api/ears/answers/[answerId]', { params: { answerId: body.id }, body });
      setEars(heard.ears);
      setTold({ id: body.id, own, machine: heard.machine, others: heard.others });
    });
  const slip = () =>
    during(async () => {
      setEars(await ask('DELETE /api/ears/answers/[answerId]', { params: { answerId: told!.id } }));
      await next();
    });
  const forgetAll = () =>
    during(async () => {
      setEars(await ask('DELETE /api/ears/answers'));
      setPasses(null);
      setName(null);
      setTold(null);
    });
  const call = (of: PassName) => {
    if (!pass || told || busy) return;
    setName(of);
    if (of === 'none') void say({ name: of, midi: null });
  };
  const placing = pass && name !== null && name !== 'none' && !told;
  const tryNote = (of: number) => {
    setMidi(of);
    void soundNote(of).catch(() => setProblem(t('The piano’s sounds could not be loaded: place it from where you can.')));
  };
  const step = (by: number) => {
    const notes = notesOf(pass!);
    tryNote(notes[Math.min(notes.length - 1, Math.max(0, midi === null ? Math.floor(notes.length / 2) : notes.indexOf(midi) + by))]);
  };
  const nextButton = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (told) nextButton.current?.focus();
  }, [told]);
  const playing = player.playing !== null;
  const shortcuts: Shortcut[] = [
    {
      key: ' ',
      says: said('plays; after an answer, the next one'),
      act: busy ? null : !pass || told ? () => void next() : () => (playing ? player.stop() : hear(pass)),
    },
    { key: 'r', says: said('plays it once more'), act: pass ? () => hear(pass) : null },
    ...PASS_NAMES.map((of, i): Shortcut => ({ key: String(i + 1), says: PASS_WORDS[of], act: pass && !told ? () => call(of) : null })),
    { key: 'ArrowUp', says: said('a note higher'), act: placing ? () => step(1) : null },
    { key: 'ArrowDown', says: said('a note lower'), act: placing ? () => step(-1) : null },
    {
      key: 'y',
      says: said('yes, that is the note'),
      act: placing && midi !== null && !busy ? () => void say({ name: name!, midi }) : null,
    },
  ];

  return (
    <>
      <div className="flex items-start gap-2">
        <p className="flex-1 text-soft">
          {t(
            'One way of a slide by one of your singers; who it is isn’t told. You say what happens, and at which note; then you see what the machine hears in it.',
          )}
        </p>
        <Keys shortcuts={shortcuts} />
      </div>
      <section aria-label={t('Heard blind')} className="card flex flex-col gap-4">
        {pass ? (
          <>
            <h2 className="text-2xl font-bold">{t('A slide {direction}: what happens?', { direction: pass.direction })}</h2>
            <div className="grid grid-cols-2 gap-2 sm:grid-cols-4" role="group" aria-label={t('Your answer')}>
              {PASS_NAMES.map((of, i) => (
                <button
                  key={of}
                  className={`button min-h-16 text-lg ${of === name ? 'border-accent text-accent' : ''}`}
                  aria-pressed={of === name}
                  aria-keyshortcuts={String(i + 1)}
                  disabled={told !== null || busy}
                  onClick={() => call(of)}
                >
                  {t(PASS_WORDS[of])}
                </button>
              ))}
            </div>
            {placing && (
              <div className="flex flex-col gap-2">
                <p>{t('Which is the last note before it? A press sounds it.')}</p>
                <div role="group" aria-label={t('The last note before the change')} className="flex flex-wrap gap-1">
                  {notesOf(pass).map((of) => (
                    <button
                      key={of}
                      className={`button-small min-h-11 min-w-12 ${of === midi ? 'border-accent text-accent' : ''}`}
                      aria-pressed={of === midi}
                      onClick={() => tryNote(of)}
                    >
                      {note(of)}
                    </button>
                  ))}
                </div>
                <div className="flex flex-wrap gap-2">
                  <button className="button-main" disabled={midi === null || busy} onClick={() => void say({ name: name, midi })}>
                    <Check aria-hidden size={18} /> {midi === null ? t('That is the note') : t('It is {note}', { note: { note: midi } })}
                  </button>
                  <button className="button" disabled={busy} onClick={() => void say({ name: name, midi: null })}>
                    {t('I can’t place it')}
                  </button>
                </div>
              </div>
            )}
            <div role="status" className="text-lg">
              {told && (
                <ul data-testid="told">
                  <li>{t('You: {own}.', { own: passInWords(told.own) })}</li>
                  <li>{t('The machine: {machine}.', { machine: passInWords(told.machine) })}</li>
                  {told.others.map((other, i) => (
                    <li key={i}>{t('Another coach: {other}.', { other: passInWords(other) })}</li>
                  ))}
                </ul>
              )}
            </div>
            <div className="flex flex-wrap gap-2">
              <button className="button min-h-14" onClick={() => (playing ? player.stop() : hear(pass))}>
                {playing ? <Square aria-hidden size={18} /> : <Play aria-hidden size={18} />} {playing ? t('Stop') : t('Once more')}
              </button>
              {told && (
                <button ref={nextButton} className="button-main min-h-14" disabled={busy} onClick={() => void next()}>
                  <ArrowRight aria-hidden size={18} /> {t('Next')}
                </button>
              )}
              {told && (
                <button className="button min-h-14" disabled={busy} onClick={() => void slip()}>
                  {t('That was a slip')}
                </button>
              )}
            </div>
          </>
        ) : passes ? (
          <p>
            {t(
              'You have heard every slide that is here. Record more, or come back in four weeks: then they are asked again, to see how far you agree with yourself.',
            )}
          </p>
        ) : (
          <button className="button-main min-h-16 self-start text-xl" disabled={busy} onClick={() => void next()}>
            <Play aria-hidden /> {t('Play')}
          </button>
        )}
        {problem && <Notice>{t(problem)}</Notice>}
      </section>
      <EarsCompared ears={ears} onForget={() => void forgetAll()} />
    </>
  );
}

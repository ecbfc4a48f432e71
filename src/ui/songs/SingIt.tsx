'use client';
import { said, Said } from '../../core/words/said';
import { Circle, FileAudio, Mic, Square } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import { recordingOf } from '../../audio/file';
import type { VoiceTypeId } from '../../core/plan/voice-types';
import type { SimTask } from '../../core/sim/score';
import type { TimbreAxis } from '../../core/take/timbre';
import { Refused } from '../../sync/answer';
import { keepFile, TakeIdentity } from '../../sync/kept-takes';
import { onSent } from '../../sync/takes';
import { Choice } from '../kit/Choice';
import { Notice } from '../kit/Notice';
import { useShortcuts } from '../kit/useShortcuts';
import { LevelMeter } from '../listen/LevelMeter';
import { MicrophoneChoice } from '../listen/MicrophoneChoice';
import { analysed } from '../listen/save-take';
import { openSource, Source, SOURCES } from '../listen/sources';
import { Unsent } from '../listen/Unsent';
import { Finished, useRecorder } from '../listen/useRecorder';
import { useLanguage } from '../language/language';
import { saidOf } from '../../core/words/said-error';

const noFrames = () => {};

/** A take sung freely into the microphone, from a file, or by the simulated singer: of a song, or a song to be. */
export function SingIt({
  singer,
  sung,
  simulated,
  heading,
  hint,
  piano,
  onTaken,
}: {
  singer: { id: string; name: string; voiceType: VoiceTypeId; axis: TimbreAxis | null };
  /** The song it is a take of, and its key; null: none yet. */
  sung: { id: string; semitones: number } | null;
  simulated: () => SimTask;
  heading: string;
  hint: string;
  /** Plays along where it is wanted, for headphones; `onEnd` when it has come to the end. */
  piano?: { begin: (onEnd: () => void) => void; end: () => void };
  /** Called once the take has been listened to. */
  onTaken: (takeId: string) => void;
}) {
  const { t } = useLanguage();
  const router = useRouter();
  const [source, setSource] = useState<Source>('microphone');
  const [listening, setListening] = useState(false);
  const [problem, setProblem] = useState<Said | null>(null);
  const [withPiano, setWithPiano] = useState(false);
  const chooser = useRef<HTMLInputElement>(null);
  const stopNow = useRef<() => Promise<void>>(async () => {});
  const recorder = useRecorder(singer.axis, noFrames, () => {
    setProblem(t('The microphone went away. What was sung so far is being kept.'));
    return stopNow.current();
  });
  const { close, deliver } = recorder;

  const listen = useCallback(
    async (takeId: string) => {
      try {
        setListening(true);
        await analysed(takeId);
        router.refresh();
        onTaken(takeId);
      } catch (error) {
        setProblem(saidOf(error));
      } finally {
        setListening(false);
      }
    },
    [onTaken, router],
  );
  const waiting = useRef<string | null>(null);
  useEffect(
    () =>
      onSent((id) => {
        if (waiting.current === id) void listen(id);
      }),
    [listen],
  );
  const save = useCallback(
    async (finished: Finished) => {
      setProblem(null);
      waiting.current = finished.take.id;
      try {
        await deliver(finished);
      } catch (error) {
        // What can't be sent now is told with the takes that wait; a file that isn't accepted is still where it came from.
        if (error instanceof Refused && finished.take.source === 'file') setProblem(saidOf(error));
      }
    },
    [deliver],
  );
  const identity = useCallback(
    (from: Source): TakeIdentity => ({
      id: crypto.randomUUID(),
      singerId: singer.id,
      singerName: singer.name,
      task: 'free',
      vowel: '',
      colour: null,
      source: from,
      recordedAt: new Date().toISOString(),
      lessonId: null,
      step: '',
      // Steps from note to note, however they are joined.
      asked: { slid: false },
      song: sung,
    }),
    [singer, sung],
  );
  const stop = useCallback(async () => {
    piano?.end();
    const finished = await recorder.stop();
    if (!finished) return;
    if (finished.take.source === 'simulated') close();
    await save(finished);
  }, [close, piano, recorder, save]);
  useEffect(() => {
    stopNow.current = stop;
  });
  const start = useCallback(async () => {
    setProblem(null);
    if (source === 'file') return chooser.current?.click();
    try {
      if (source === 'simulated') close();
      await recorder.start(identity(source), (events) =>
        openSource(source, events, {
          type: singer.voiceType,
          style: 'flip',
          task: simulated,
          vowel: 'ah',
          onEnd: () => void stopNow.current(),
        }),
      );
      if (withPiano && source === 'microphone') piano?.begin(() => void stopNow.current());
    } catch (error) {
      setProblem(saidOf(error));
    }
  }, [close, identity, piano, recorder, simulated, singer.voiceType, source, withPiano]);
  const readFile = async (file: File | undefined) => {
    if (!file) return;
    try {
      const recording = await recordingOf(file);
      const take = identity('file');
      await keepFile(take, recording.wav).catch(() => {});
      await save({ take, recording, marks: [], heard: null });
    } catch (error) {
      setProblem(saidOf(error));
    }
  };
  const busy = recorder.state === 'opening' || recorder.state === 'ending' || listening;
  const recording = recorder.state === 'recording';
  const toggle = () => (recording ? void stop() : busy ? undefined : void start());
  useShortcuts([{ key: 'r', says: said('records, and stops'), act: toggle }]);
  const Icon = recording ? Square : source === 'file' ? FileAudio : source === 'microphone' ? Mic : Circle;
  return (
    <section aria-label={heading} className="card flex flex-col gap-2">
      <h2 className="text-lg font-bold">{heading}</h2>
      <p className="text-sm text-soft">{hint}</p>
      <Choice
        label={t('Listen to')}
        value={source}
        options={SOURCES}
        onChange={(s) => (close(), setSource(s))}
        disabled={busy || recording}
      />
      {source === 'microphone' && <MicrophoneChoice onChange={close} disabled={busy || recording} />}
      {source === 'microphone' && piano && (
        <label className="flex min-h-9 items-center gap-2 text-sm">
          <input type="checkbox" checked={withPiano} disabled={busy || recording} onChange={(e) => setWithPiano(e.target.checked)} />{' '}
          {t('With the piano, in headphones: its first note, then along from the phrase that is shown')}
        </label>
      )}
      {source !== 'file' && recording && <LevelMeter store={recorder.meter} paused={busy} source={source} />}
      <button className="button-main" onClick={toggle} disabled={busy} title="R">
        <Icon aria-hidden size={18} />
        {recording
          ? t('Stop')
          : listening
            ? t('Listening closely …')
            : recorder.state === 'opening'
              ? t('Opening …')
              : source === 'file'
                ? t('Choose a file')
                : t('Record')}
      </button>
      <input
        ref={chooser}
        type="file"
        accept="audio/*,.wav,.flac"
        aria-label={t('Audio file of the take')}
        className="sr-only"
        tabIndex={-1}
        onChange={(e) => (void readFile(e.target.files?.[0]), (e.target.value = ''))}
      />
      {problem && <Notice>{t(problem)}</Notice>}
      {recorder.warning && <Notice>{t(recorder.warning)}</Notice>}
      <Unsent takes={recorder.unsent} onTryAgain={(u) => void save(u)} />
    </section>
  );
}

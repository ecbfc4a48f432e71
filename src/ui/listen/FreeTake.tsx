'use client';
import { said, texts } from '../../core/words/said';
import { Circle, FileAudio, Mic, RotateCcw, Square, Trash2, Undo2 } from 'lucide-react';
import { Link } from '../kit/Link';
import { useRouter } from 'next/navigation';
import { useEffect, useReducer, useRef, useState } from 'react';
import { recordingOf } from '../../audio/file';
import { Recording } from '../../audio/input';
import { keepFile, TakeIdentity } from '../../sync/kept-takes';
import { Refused } from '../../sync/answer';
import { onSent } from '../../sync/takes';
import { useTakePlayer } from '../../audio/take-player';
import { FRESH, takeStand } from '../../core/lesson/take-stand';
import type { VoiceMap } from '../../core/map/types';
import { VoiceTypeId, voiceType } from '../../core/plan/voice-types';
import type { CrossingStyle } from '../../core/sim/profile';
import type { TimbreAxis } from '../../core/take/timbre';
import { changesOf } from '../../core/take/changes';
import { Colour, Task, TASKS } from '../../core/take/types';
import { Choice } from '../kit/Choice';
import { Notice } from '../kit/Notice';
import { useShortcuts } from '../kit/useShortcuts';
import { TASK_WORDS } from '../kit/words';
import { useLadderScale } from '../ladder/useLadderScale';
import { Found } from '../take/Found';
import { TakePicture } from '../take/TakePicture';
import { LevelMeter } from './LevelMeter';
import { LevelSetting } from './LevelSetting';
import { MicrophoneChoice } from './MicrophoneChoice';
import { analysed, discardTake, StoredTake } from './save-take';
import { openSource, Source, SOURCES } from './sources';
import { Stage } from './Stage';
import { Unsent } from './Unsent';
import { Finished, useRecorder } from './useRecorder';
import { COLOUR_HOW, COLOUR_WORDS, ListenVowel, simulatedTask, STYLE_WORDS, VOWELS, whatToSing } from './what-to-sing';
import { useLanguage } from '../language/language';
import { saidOf } from '../../core/words/said-error';

const HEIGHT = 600;
const noFrames = () => {};
const MICROPHONE_WENT = texts('The microphone went away. What was recorded so far is being kept: plug it in again for the next take.');

/** Who is listened to. */
export interface Listened {
  id: string;
  name: string;
  voiceType: VoiceTypeId;
  axis: TimbreAxis | null;
}

/** One take of anything, from the microphone, a file or the simulated singer. */
export function FreeTake({ singer, map }: { singer: Listened; map: VoiceMap }) {
  const { t } = useLanguage();
  const router = useRouter();
  const type = voiceType(singer.voiceType);
  const [task, setTask] = useState<Task>('siren');
  const [vowel, setVowel] = useState<ListenVowel>('ah');
  const [held, setHeld] = useState<Colour | 'plain'>('plain');
  const colour = task === 'sustain' && held !== 'plain' ? held : null;
  const [source, setSource] = useState<Source>('microphone');
  const [style, setStyle] = useState<CrossingStyle>('flip');
  const [stand, tell] = useReducer(takeStand<Finished, StoredTake>, FRESH);
  /** Takes recorded here, each read again once the server has it. */
  const recordedHere = useRef(new Set<string>());
  const chooser = useRef<HTMLInputElement>(null);
  const stopNow = useRef<() => Promise<void>>(async () => {});
  const { playing, play, stop: silence } = useTakePlayer();
  const recorder = useRecorder(singer.axis, noFrames, () => {
    tell({ kind: 'problem', problem: MICROPHONE_WENT });
    return stopNow.current();
  });
  const { close, deliver, live, meter } = recorder;
  const state = recorder.state === 'idle' ? stand.at : recorder.state === 'ending' ? 'storing' : recorder.state;

  const scale = useLadderScale(map, singer.voiceType, HEIGHT);

  const save = async (finished: Finished) => {
    const { id, source: from } = finished.take;
    recordedHere.current.add(id);
    tell({ kind: 'ended', take: finished });
    void finished.heard?.then((heard) =>
      tell({ kind: 'heard', id, found: { take: { id, durationS: finished.recording.durationS }, analysis: heard } }),
    );
    try {
      await deliver(finished);
    } catch (error) {
      // What waits is shown with the takes that wait.
      const problem = error instanceof Refused && from === 'file' ? saidOf(error) : null;
      tell({ kind: 'unsent', id, heardHere: finished.heard !== null, problem });
    }
  };
  // Told as soon as the server has it, be it at once or later by itself.
  useEffect(
    () =>
      onSent(async (id) => {
        if (!recordedHere.current.delete(id)) return;
        tell({ kind: 'stored', id });
        try {
          tell({ kind: 'analysed', id, found: await analysed(id) });
          router.refresh();
        } catch (error) {
          tell({ kind: 'problem', id, problem: saidOf(error) });
        }
      }),
    [router],
  );

  const identity = (from: Source): TakeIdentity => ({
    id: crypto.randomUUID(),
    singerId: singer.id,
    singerName: singer.name,
    task,
    vowel,
    colour,
    source: from,
    recordedAt: new Date().toISOString(),
    lessonId: null,
    step: '',
    asked: null,
  });

  const stop = async () => {
    const finished = await recorder.stop();
    if (!finished) return;
    if (finished.take.source === 'simulated') close();
    await save(finished);
  };
  useEffect(() => {
    stopNow.current = stop;
  });

  const start = async () => {
    silence();
    tell({ kind: 'begun' });
    if (source === 'file') return chooser.current?.click();
    try {
      if (source === 'simulated') close();
      await recorder.start(identity(source), (events) =>
        openSource(source, events, {
          type: singer.voiceType,
          style,
          task: (low, high) => simulatedTask(task, colour, low, high),
          vowel,
          onEnd: () => void stopNow.current(),
        }),
      );
    } catch (error) {
      tell({ kind: 'problem', problem: saidOf(error) });
    }
  };

  const readFile = async (file: File | undefined) => {
    if (!file) return;
    tell({ kind: 'begun' });
    setSource('file');
    try {
      const recording: Recording = await recordingOf(file);
      const take = identity('file');
      await keepFile(take, recording.wav).catch(() => {});
      await save({ take, recording, marks: [], heard: null });
    } catch (error) {
      tell({ kind: 'problem', problem: saidOf(error) });
    }
  };

  const made = stand.found && stand.take;
  const discard = async () => {
    if (!made) return;
    silence();
    try {
      await discardTake(made.take.id);
      tell({ kind: 'discarded', id: made.take.id });
      router.refresh();
    } catch (error) {
      tell({ kind: 'problem', problem: saidOf(error) });
    }
  };

  const busy = state === 'opening' || state === 'storing' || state === 'analysing';
  const toggle = () => {
    if (state === 'recording') void stop();
    else if (!busy) void start();
  };

  useShortcuts([{ key: ' ', says: said('starts and stops'), act: toggle }]);

  const changeSource = (next: Source) => {
    close();
    setSource(next);
  };

  const sing = whatToSing(task, vowel, map, type.low);
  const analysis = stand.found?.analysis ?? null;
  const { findings = null, trace = null } = analysis ?? {};
  const changes = findings ? changesOf(findings) : [];

  return (
    <div
      className="grid gap-4 lg:grid-cols-[1fr_22rem]"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        if (!busy && state !== 'recording') void readFile(e.dataTransfer.files[0]);
      }}
    >
      <section aria-label={t('What is sung, beside the ladder')}>
        {trace && findings ? (
          <TakePicture
            scale={scale}
            map={map}
            findings={findings}
            trace={trace}
            changes={changes}
            marks={[]}
            playheadS={playing?.atS ?? null}
            onPlay={(fromS) => play(made!.take.id, fromS)}
          />
        ) : (
          <Stage scale={scale} map={map} live={live}>
            {state === 'idle' && (
              <p className="absolute inset-x-0 top-1/2 px-6 text-center text-lg text-soft">
                {source === 'file'
                  ? t('Drop an audio file here, or press Space to choose one.')
                  : t('Press Space. The voice will be drawn here as it sings.')}
              </p>
            )}
          </Stage>
        )}
      </section>

      <aside className="flex flex-col gap-4">
        <div>
          <h2 className="text-[40px] leading-tight font-bold">{t(sing.title)}</h2>
          {!made && <p className="mt-1 text-lg text-soft">{colour ? t(COLOUR_HOW) : t(sing.how)}</p>}
        </div>
        <div className="grid grid-cols-2 gap-2">
          <Choice
            label={t('What is sung')}
            value={task}
            options={TASKS.map((t) => [t, TASK_WORDS[t]] as const)}
            onChange={setTask}
            disabled={busy || state === 'recording'}
          />
          <Choice
            label={t('Vowel')}
            value={vowel}
            options={VOWELS.map((v) => [v, v] as const)}
            onChange={setVowel}
            disabled={busy || state === 'recording' || task === 'speech'}
          />
          {task === 'sustain' && (
            <Choice
              label={t('Held')}
              value={held}
              options={[['plain', t('as it comes')], ...COLOUR_WORDS.map(([c, words]) => [c, t(words)] as const)]}
              onChange={setHeld}
              disabled={busy || state === 'recording'}
            />
          )}
          <Choice
            label={t('Listen to')}
            value={source}
            options={SOURCES}
            onChange={changeSource}
            disabled={busy || state === 'recording'}
          />
          {source === 'simulated' && (
            <Choice
              label={t('A voice that')}
              value={style}
              options={STYLE_WORDS}
              onChange={setStyle}
              disabled={busy || state === 'recording'}
            />
          )}
        </div>
        {source === 'microphone' && <MicrophoneChoice onChange={close} disabled={busy || state === 'recording'} />}
        {source !== 'file' && <LevelMeter store={meter} paused={busy} source={source} />}
        <button className="button-main min-h-16 text-xl" onClick={toggle} disabled={busy} title={t('Space')}>
          {state === 'recording' ? (
            <Square aria-hidden />
          ) : source === 'file' ? (
            <FileAudio aria-hidden />
          ) : source === 'microphone' ? (
            <Mic aria-hidden />
          ) : (
            <Circle aria-hidden />
          )}
          {
            {
              idle: source === 'file' ? t('Choose a file') : t('Start'),
              opening: t('Opening …'),
              recording: t('Stop'),
              storing: t('Storing the take …'),
              analysing: t('Listening closely …'),
              result: source === 'file' ? t('Another file') : t('Next take'),
            }[state]
          }
        </button>
        <input
          ref={chooser}
          type="file"
          accept="audio/*,.wav,.flac"
          aria-label={t('Audio file')}
          className="sr-only"
          tabIndex={-1}
          onChange={(e) => (void readFile(e.target.files?.[0]), (e.target.value = ''))}
        />
        {source !== 'file' && state === 'idle' && <LevelSetting source={source} />}
        {stand.problem && <Notice>{t(stand.problem)}</Notice>}
        {recorder.warning && <Notice>{t(recorder.warning)}</Notice>}
        <Unsent takes={recorder.unsent} onTryAgain={(u) => void save(u)} />
        {stand.discarded && (
          <div role="status" className="flex items-center gap-3 rounded-lg border border-line bg-card p-3">
            <span className="flex-1">{t('The take is discarded.')}</span>
            <button className="button" onClick={() => void save(stand.discarded!)}>
              <Undo2 aria-hidden size={18} /> {t('Undo')}
            </button>
          </div>
        )}
        {made && analysis && (
          <section aria-label={t('What was found')} className="card flex flex-col gap-3">
            <Found analysis={analysis} changes={changes} onPlay={(timeS) => play(made.take.id, timeS - 1, timeS + 1)} />
            <div className="flex flex-wrap gap-1">
              <Link className="button px-3" href={`/singers/${singer.id}/takes/${made.take.id}`}>
                {t('Review')}
              </Link>
              {source !== 'file' && (
                <button className="button px-3" onClick={() => void discard().then(start)} title={t('Discards this take and starts again')}>
                  <RotateCcw aria-hidden size={18} /> {t('Repeat')}
                </button>
              )}
              <button className="button px-3" onClick={() => void discard()}>
                <Trash2 aria-hidden size={18} /> {t('Discard')}
              </button>
            </div>
          </section>
        )}
      </aside>
    </div>
  );
}

'use client';
import { Circle, FileAudio, Mic, RotateCcw, Square, Trash2, Undo2 } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import { recordingOf } from '../../audio/file';
import { Input, Live, openMicrophone, openSound, Recording } from '../../audio/input';
import { singAside } from '../../audio/simulated';
import { useTakePlayer } from '../../audio/take-player';
import type { VoiceMap } from '../../core/map/types';
import { VoiceTypeId, voiceType } from '../../core/plan/voice-types';
import type { CrossingStyle } from '../../core/sim/profile';
import { typicalProfile } from '../../core/sim/typical';
import { changesOf } from '../../core/take/changes';
import { Colour, Task, TASKS } from '../../core/take/types';
import { Choice } from '../kit/Choice';
import { Notice } from '../kit/Notice';
import { useWidth } from '../kit/useWidth';
import { TASK_WORDS } from '../kit/words';
import { Ladder, PassaggioBand, Rungs } from '../ladder/Ladder';
import { useLadderScale } from '../ladder/useLadderScale';
import { addFrames, emptyLive, LiveStore, LiveTrace } from '../take/LiveTrace';
import { TakePicture } from '../take/TakePicture';
import { Found } from '../take/Found';
import { LevelMeter, MeterStore } from './LevelMeter';
import { analysed, discardTake, PendingTake, StoredTake, uploadTake } from './save-take';
import { COLOUR_HOW, COLOUR_WORDS, ListenVowel, simulatedTask, STYLE_WORDS, VOWELS, whatToSing } from './what-to-sing';

type Source = PendingTake['source'];
type State = 'idle' | 'opening' | 'recording' | 'saving' | 'analysing' | 'result';

const SOURCES: readonly (readonly [Source, string])[] = [
  ['microphone', 'Microphone'],
  ['file', 'Audio file'],
  ['simulated', 'Simulated singer'],
];
const HEIGHT = 600;

export function ListenRoom({ singer, map }: { singer: { id: string; name: string; voiceType: VoiceTypeId }; map: VoiceMap }) {
  const router = useRouter();
  const type = voiceType(singer.voiceType);
  const [task, setTask] = useState<Task>('siren');
  const [vowel, setVowel] = useState<ListenVowel>('ah');
  const [held, setHeld] = useState<Colour | 'plain'>('plain');
  const colour = task === 'sustain' && held !== 'plain' ? held : null;
  const [source, setSource] = useState<Source>('microphone');
  const [style, setStyle] = useState<CrossingStyle>('flip');
  const [state, setState] = useState<State>('idle');
  const [problem, setProblem] = useState<string | null>(null);
  const [unsaved, setUnsaved] = useState<PendingTake | null>(null);
  const [discarded, setDiscarded] = useState<PendingTake | null>(null);
  const [result, setResult] = useState<{ pending: PendingTake; stored: StoredTake } | null>(null);
  const input = useRef<Input | null>(null);
  const live = useRef<LiveStore>(emptyLive());
  const meter = useRef<MeterStore>({ peak: 0 });
  const recording = useRef(false);
  const chooser = useRef<HTMLInputElement>(null);
  const [box, width] = useWidth();
  const { playing, play, stop: silence } = useTakePlayer();

  const scale = useLadderScale(map, singer.voiceType, HEIGHT);

  const onLive = useCallback(({ frames, peak }: Live) => {
    meter.current.peak = Math.max(meter.current.peak, peak);
    if (recording.current) addFrames(live.current, frames);
  }, []);

  const close = useCallback(() => {
    input.current?.close();
    input.current = null;
    recording.current = false;
  }, []);
  useEffect(() => close, [close]);

  // A tab closed while a take is unsaved would lose it: let the browser ask.
  useEffect(() => {
    if (!unsaved && state !== 'recording' && state !== 'saving') return;
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    addEventListener('beforeunload', ask);
    return () => removeEventListener('beforeunload', ask);
  }, [unsaved, state]);

  const save = useCallback(
    async (pending: PendingTake) => {
      setState('saving');
      setProblem(null);
      setUnsaved(pending);
      try {
        await uploadTake(pending);
        setUnsaved(null);
        setState('analysing');
        const stored = await analysed(pending.id);
        setResult({ pending, stored });
        setState('result');
        router.refresh();
      } catch (error) {
        setProblem((error as Error).message);
        setState('idle');
      }
    },
    [router],
  );

  const finish = useCallback(
    (made: Recording, from: Source) =>
      save({
        id: crypto.randomUUID(),
        singerId: singer.id,
        task,
        vowel,
        colour,
        source: from,
        recordedAt: new Date().toISOString(),
        recording: made,
      }),
    [colour, save, singer.id, task, vowel],
  );

  const stop = useCallback(async () => {
    if (!recording.current || !input.current) return;
    recording.current = false;
    setState('saving');
    const made = await input.current.stop();
    if (source === 'simulated') close();
    await finish(made, source);
  }, [close, finish, source]);
  const stopNow = useRef(stop);
  useEffect(() => {
    stopNow.current = stop;
  }, [stop]);

  const start = useCallback(async () => {
    silence();
    setProblem(null);
    setResult(null);
    setDiscarded(null);
    live.current = emptyLive();
    if (source === 'file') return chooser.current?.click();
    setState('opening');
    try {
      if (source === 'simulated') {
        close();
        const profile = typicalProfile(singer.voiceType, style);
        const pcm = await singAside({
          profile,
          task: simulatedTask(task, colour, profile.lowMidi, profile.highMidi),
          options: { seed: Date.now() % 1e9, vowel, sampleRate: 44100, snrDb: 50 },
        });
        input.current = await openSound(pcm, onLive, () => void stopNow.current());
      } else
        input.current ??= await openMicrophone(onLive, () => {
          setProblem('The microphone went away. What was recorded so far is being kept: plug it in again for the next take.');
          void stopNow.current().then(close);
        });
      recording.current = true;
      input.current.start();
      setState('recording');
    } catch (error) {
      close();
      setProblem((error as Error).message);
      setState('idle');
    }
  }, [close, colour, onLive, setDiscarded, silence, singer.voiceType, source, style, task, vowel]);

  const readFile = useCallback(
    async (file: File | undefined) => {
      if (!file) return;
      setResult(null);
      setDiscarded(null);
      setSource('file');
      try {
        await finish(await recordingOf(file), 'file');
      } catch (error) {
        setProblem((error as Error).message);
        setState('idle');
      }
    },
    [finish, setDiscarded],
  );

  const discard = useCallback(async () => {
    if (!result) return;
    silence();
    try {
      await discardTake(result.pending.id);
      setDiscarded(result.pending);
      setResult(null);
      setState('idle');
      router.refresh();
    } catch (error) {
      setProblem((error as Error).message);
    }
  }, [silence, result, router, setDiscarded]);

  const busy = state === 'opening' || state === 'saving' || state === 'analysing';
  const toggle = useCallback(() => {
    if (state === 'recording') void stop();
    else if (!busy) void start();
  }, [busy, start, state, stop]);

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (event.code !== 'Space' || event.repeat || ['SELECT', 'INPUT', 'TEXTAREA', 'BUTTON', 'A'].includes(target.tagName)) return;
      event.preventDefault();
      toggle();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [toggle]);

  const changeSource = (next: Source) => {
    close();
    setSource(next);
  };

  const sing = whatToSing(task, vowel, map, type.low);
  const findings = result?.stored.analysis?.findings ?? null;
  const trace = result?.stored.analysis?.trace ?? null;
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
      <section aria-label="What is sung, beside the ladder">
        {trace && findings ? (
          <TakePicture
            scale={scale}
            map={map}
            findings={findings}
            trace={trace}
            changes={changes}
            marks={[]}
            playheadS={playing?.atS ?? null}
            onPlay={(fromS) => play(result!.pending.id, fromS)}
          />
        ) : (
          <div className="flex gap-2">
            <Ladder scale={scale} map={map} />
            <div ref={box} className="relative min-w-0 flex-1 overflow-hidden rounded-lg border border-line" style={{ height: HEIGHT }}>
              <svg width={width} height={HEIGHT} aria-hidden="true">
                <Rungs scale={scale} width={width} />
                {map.passaggi.map((p) => (
                  <PassaggioBand key={p.midi} scale={scale} passaggio={p} x={0} width={width} />
                ))}
              </svg>
              <LiveTrace store={live} scale={scale} width={width} />
              {state === 'idle' && (
                <p className="absolute inset-x-0 top-1/2 px-6 text-center text-lg text-soft">
                  {source === 'file'
                    ? 'Drop an audio file here, or press Space to choose one.'
                    : 'Press Space. The voice will be drawn here as it sings.'}
                </p>
              )}
            </div>
          </div>
        )}
      </section>

      <aside className="flex flex-col gap-4">
        <div>
          <h2 className="text-[40px] leading-tight font-bold">{sing.title}</h2>
          {!result && <p className="mt-1 text-lg text-soft">{colour ? COLOUR_HOW : sing.how}</p>}
        </div>
        <div className="grid grid-cols-2 gap-2">
          <Choice
            label="What is sung"
            value={task}
            options={TASKS.map((t) => [t, TASK_WORDS[t]] as const)}
            onChange={setTask}
            disabled={busy || state === 'recording'}
          />
          <Choice
            label="Vowel"
            value={vowel}
            options={VOWELS.map((v) => [v, v] as const)}
            onChange={setVowel}
            disabled={busy || state === 'recording' || task === 'speech'}
          />
          {task === 'sustain' && (
            <Choice
              label="Held"
              value={held}
              options={[['plain', 'as it comes'], ...COLOUR_WORDS]}
              onChange={setHeld}
              disabled={busy || state === 'recording'}
            />
          )}
          <Choice label="Listen to" value={source} options={SOURCES} onChange={changeSource} disabled={busy || state === 'recording'} />
          {source === 'simulated' && (
            <Choice label="A voice that" value={style} options={STYLE_WORDS} onChange={setStyle} disabled={busy || state === 'recording'} />
          )}
        </div>
        {source !== 'file' && <LevelMeter store={meter} paused={busy} />}
        <button className="button-main min-h-16 text-xl" onClick={toggle} disabled={busy} title="Space">
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
              idle: source === 'file' ? 'Choose a file' : 'Start',
              opening: 'Opening …',
              recording: 'Stop',
              saving: 'Storing the take …',
              analysing: 'Listening closely …',
              result: source === 'file' ? 'Another file' : 'Next take',
            }[state]
          }
        </button>
        <input
          ref={chooser}
          type="file"
          accept="audio/*,.wav,.flac"
          aria-label="Audio file"
          className="sr-only"
          tabIndex={-1}
          onChange={(e) => (void readFile(e.target.files?.[0]), (e.target.value = ''))}
        />
        {problem && (
          <Notice
            actions={
              unsaved && (
                <>
                  <button className="button" onClick={() => void save(unsaved)}>
                    Try again
                  </button>
                  <a
                    className="button"
                    download={`take-${unsaved.recordedAt.slice(0, 16)}.wav`}
                    href={URL.createObjectURL(new Blob([unsaved.recording.wav], { type: 'audio/wav' }))}
                  >
                    Keep as a file
                  </a>
                </>
              )
            }
          >
            {problem}
          </Notice>
        )}
        {discarded && (
          <div role="status" className="flex items-center gap-3 rounded-lg border border-line bg-card p-3">
            <span className="flex-1">The take is discarded.</span>
            <button className="button" onClick={() => (setDiscarded(null), void save(discarded))}>
              <Undo2 aria-hidden size={18} /> Undo
            </button>
          </div>
        )}
        {result && (
          <section aria-label="What was found" className="card flex flex-col gap-3">
            <Found analysis={result.stored.analysis!} changes={changes} onPlay={(timeS) => play(result.pending.id, timeS - 1, timeS + 1)} />
            <div className="flex flex-wrap gap-1">
              <Link className="button px-3" href={`/singers/${singer.id}/takes/${result.pending.id}`}>
                Review
              </Link>
              {source !== 'file' && (
                <button className="button px-3" onClick={() => void discard().then(start)} title="Discards this take and starts again">
                  <RotateCcw aria-hidden size={18} /> Repeat
                </button>
              )}
              <button className="button px-3" onClick={() => void discard()}>
                <Trash2 aria-hidden size={18} /> Discard
              </button>
            </div>
          </section>
        )}
      </aside>
    </div>
  );
}

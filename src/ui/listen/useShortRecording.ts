import { useEffect, useRef, useState } from 'react';
import { Live, openMicrophone } from '../../audio/input';
import { SHORT_RATE, SHORT_S } from '../../core/format/short-sound';
import { readWav, writeWav } from '../../core/format/wav';
import { resample } from '../../core/signal/resample';
import { HOP_S } from '../../core/voice/types';
import { Said, texts } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';
import type { LiveStore } from '../take/LiveTrace';
import { chosenMicrophone } from './sources';
import { useRecorder } from './useRecorder';

const WENT_AWAY = texts('The microphone went away: nothing was kept of it.');
const NO_SOUND = texts('No sound came from the microphone: see that it is on and not muted, then record again.');

/** A short recording, as a WAV file, and how long it is. */
export interface ShortRecording {
  wav: Uint8Array<ArrayBuffer>;
  seconds: number;
}

/**
 * Records a few seconds from the microphone, no longer than `SHORT_S`, in this page only; `onMade` gets them when they are over, by `finish`
 * or by themselves.
 */
export function useShortRecording(onMade: (made: ShortRecording) => void) {
  const [problem, setProblem] = useState<Said | null>(null);
  /** Whole seconds that have been heard: they stand still when the microphone gives nothing. */
  const [heardS, setHeardS] = useState(0);
  const countSeconds = (_: Live, track: LiveStore) => setHeardS(Math.floor(track.midi.length * HOP_S));
  const recorder = useRecorder(null, countSeconds, async () => setProblem(WENT_AWAY), { heard: false });
  const made = useRef(onMade);
  useEffect(() => {
    made.current = onMade;
  });
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);

  const finish = async () => {
    clearTimeout(timer.current);
    const finished = await recorder.stop();
    recorder.close();
    if (!finished) return;
    if (finished.recording.durationS === 0) return setProblem(NO_SOUND);
    const { samples, sampleRate } = readWav(new Uint8Array(finished.recording.wav));
    const kept = resample(samples, sampleRate, SHORT_RATE);
    made.current({ wav: writeWav({ samples: kept, sampleRate: SHORT_RATE }, 16), seconds: kept.length / SHORT_RATE });
  };
  const begin = async () => {
    setProblem(null);
    setHeardS(0);
    try {
      await recorder.start(
        {
          id: crypto.randomUUID(),
          singerId: '',
          singerName: '',
          task: 'free',
          vowel: '',
          colour: null,
          source: 'microphone',
          recordedAt: new Date().toISOString(),
          lessonId: null,
          step: '',
          asked: null,
          hereOnly: true,
        },
        (events) => openMicrophone(chosenMicrophone(), events),
      );
      timer.current = setTimeout(() => void finish(), SHORT_S * 1000);
    } catch (error) {
      setProblem(saidOf(error));
    }
  };
  return { state: recorder.state, heardS, problem, begin, finish };
}

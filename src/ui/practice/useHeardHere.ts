import { said, Said } from '../../core/words/said';
import { useEffect, useRef, useState } from 'react';
import { openMicrophone } from '../../audio/input';
import type { PartHeard } from '../../core/practice/voice-check';
import type { Task } from '../../core/take/types';
import { useRecorder } from '../listen/useRecorder';
import { saidOf } from '../../core/words/said-error';

const noFrames = () => {};

/**
 * Listen to something short that is heard on this phone and forgotten: it ends by a press, or by itself. `onHeard` gives back why it
 * has to be sung again, or nothing, and may close the microphone.
 */
export function useHeardHere(
  singer: { id: string; name: string },
  token: string,
  step: string,
  onHeard: (heard: PartHeard, close: () => void) => Said | undefined,
) {
  const [problem, setProblem] = useState<Said | null>(null);
  const recorder = useRecorder(null, noFrames, async () => setProblem(said('The microphone went away: begin this part again.')));
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  const end = async () => {
    clearTimeout(timer.current);
    const finished = await recorder.stop();
    if (!finished) return;
    const result = await finished.heard;
    if (!result?.findings || !result.trace) return setProblem(result?.error ?? said('Nothing could be heard: sing this part again.'));
    setProblem(onHeard({ findings: result.findings, trace: result.trace }, recorder.close) ?? null);
  };
  const endNow = useRef(end);
  useEffect(() => {
    endNow.current = end;
  });
  const begin = async (task: Task, mostMs: number) => {
    try {
      await recorder.start(
        {
          id: crypto.randomUUID(),
          singerId: singer.id,
          singerName: singer.name,
          task,
          asked: null,
          vowel: '',
          colour: null,
          source: 'microphone',
          recordedAt: new Date().toISOString(),
          lessonId: null,
          step,
          via: token,
          hereOnly: true,
        },
        (events) => openMicrophone(null, events),
      );
      timer.current = setTimeout(() => void endNow.current(), mostMs);
    } catch (error) {
      setProblem(saidOf(error));
    }
  };
  return { state: recorder.state, problem, setProblem, begin, end, close: recorder.close };
}

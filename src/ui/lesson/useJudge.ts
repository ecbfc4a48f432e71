import { useMemo } from 'react';
import type { Against, JudgedTake } from '../../audio/take-messages';
import { knownVoice } from '../../core/judge/known-voice';
import { judgementInWords } from '../../core/judge/words';
import { askedOfTake } from '../../core/lesson/exercise-step';
import type { Ask, JudgedKey } from '../../core/lesson/types';
import type { VoiceMap } from '../../core/map/types';
import { expectedChange, VoiceTypeId } from '../../core/plan/voice-types';

/** What a key of an exercise is judged against as soon as its take has been heard; null where something else was asked. */
export function useJudge(map: VoiceMap, type: VoiceTypeId): (ask: Ask) => Against | null {
  return useMemo(() => {
    const voice = knownVoice(map, expectedChange(type));
    return (ask) => {
      const asked = askedOfTake(ask);
      return asked && { asked, voice };
    };
  }, [map, type]);
}

/** What is kept of a key that was heard; null where no exercise was asked for. */
export function judgedKey(takeId: string, { step, vowel, tonicMidi }: Ask, { judgement, error }: JudgedTake): JudgedKey | null {
  if (!judgement || !step.exercise || tonicMidi === null) return null;
  return {
    takeId,
    exerciseId: step.exercise.id,
    name: step.name,
    sound: vowel,
    tonicMidi,
    verdict: judgement.verdict,
    says: error ?? judgementInWords(judgement),
  };
}

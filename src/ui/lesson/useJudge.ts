import { said } from '../../core/words/said';
import { useMemo } from 'react';
import type { HeardTake } from '../../audio/take-messages';
import { judgeTake } from '../../core/judge/judge';
import { knownVoice } from '../../core/judge/known-voice';
import { judgementInWords } from '../../core/judge/words';
import { askedOfTake } from '../../core/lesson/exercise-step';
import type { Ask, JudgedKey } from '../../core/lesson/types';
import type { VoiceMap } from '../../core/map/types';
import { expectedChange, VoiceTypeId } from '../../core/plan/voice-types';

/** Judges one key of an exercise as soon as its take has been heard; null for a take of anything else. */
export function useJudge(map: VoiceMap, type: VoiceTypeId): (takeId: string, ask: Ask, heard: HeardTake) => JudgedKey | null {
  return useMemo(() => {
    const known = knownVoice(map, expectedChange(type));
    return (takeId, ask, { findings, trace, error }) => {
      const asked = askedOfTake(ask);
      if (!asked || ask.tonicMidi === null) return null;
      const of = { takeId, exerciseId: ask.step.exercise!.id, name: ask.step.name, sound: ask.vowel, tonicMidi: ask.tonicMidi };
      if (!findings || !trace) return { ...of, verdict: 'not told', says: error ?? said('It could not be listened to.') };
      const judgement = judgeTake(asked, { findings, trace }, known);
      return { ...of, verdict: judgement.verdict, says: judgementInWords(judgement) };
    };
  }, [map, type]);
}

import { useCallback, useEffect, useRef, useState } from 'react';

/** A voice of the device itself, in the language of the page where it has one: none that sends the words over a network. */
function ownVoice(): SpeechSynthesisVoice | null {
  if (!('speechSynthesis' in window)) return null;
  const own = speechSynthesis.getVoices().filter((voice) => voice.localService);
  return own.find(({ lang }) => lang.startsWith(document.documentElement.lang)) ?? own[0] ?? null;
}

function say(words: string): void {
  const voice = ownVoice();
  if (!voice) return;
  const said = new SpeechSynthesisUtterance(words);
  said.voice = voice;
  said.lang = voice.lang;
  speechSynthesis.speak(said);
}

/** Words said aloud by the device: whether it can, at a moment of `performance.now` (what waited before is then not said), and silence. */
export function useSpeech() {
  const [can, setCan] = useState(false);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => {
    if (!('speechSynthesis' in window)) return;
    const look = () => setCan(ownVoice() !== null);
    look();
    // Voices are named some time after they are first asked for.
    speechSynthesis.addEventListener('voiceschanged', look);
    return () => speechSynthesis.removeEventListener('voiceschanged', look);
  }, []);
  const hush = useCallback(() => {
    clearTimeout(timer.current);
    if ('speechSynthesis' in window) speechSynthesis.cancel();
  }, []);
  const sayAt = useCallback((words: string, atMs: number) => {
    clearTimeout(timer.current);
    const waitMs = atMs - performance.now();
    if (waitMs <= 0) say(words);
    else timer.current = setTimeout(() => say(words), waitMs);
  }, []);
  useEffect(() => hush, [hush]);
  return { can, sayAt, hush };
}

import { keepFile, TakeIdentity } from './kept-takes';
import { sendTake, takesLane } from './takes';

/**
 * Keep a word that a singer spoke of a line of their log, until the server has it; it goes as takes do. Where the browser keeps nothing it
 * is sent at once. @throws Error in words when that fails.
 */
export async function keepSpoken(token: string, singer: { id: string; name: string }, lineId: string, wav: ArrayBuffer): Promise<void> {
  const word: TakeIdentity = {
    id: lineId,
    singerId: singer.id,
    singerName: singer.name,
    task: 'speech',
    vowel: '',
    colour: null,
    source: 'microphone',
    recordedAt: new Date().toISOString(),
    lessonId: null,
    step: '',
    asked: null,
    via: token,
    spoken: true,
  };
  try {
    await keepFile(word, wav);
  } catch {
    return sendTake(word, wav, []);
  }
  void takesLane.flush();
}

import { readFile } from 'node:fs/promises';
import { VoiceFile } from '../core/format/voice-file';

/** Read a voice's file. @throws Error that says what is wrong with it. */
export async function voiceIn(file: string): Promise<VoiceFile> {
  let given: unknown;
  try {
    given = JSON.parse(await readFile(file, 'utf8'));
  } catch (error) {
    throw new Error(`${file} could not be read as JSON: ${(error as Error).message}`);
  }
  const parsed = VoiceFile.safeParse(given);
  if (parsed.success) return parsed.data;
  const wrong = parsed.error.issues.map((i) => `${i.path.join('.') || 'the file'}: ${i.message}`).join('; ');
  throw new Error(`${file} describes no voice (docs/voice.schema.json): ${wrong}`);
}

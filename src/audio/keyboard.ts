import { KeyboardMessage, keyboardMessage } from '../core/music/midi-message';
import { noteName } from '../core/music/pitch';
import { loadPiano, wake } from './follow-along';

/** How it stands with a MIDI keyboard: not looked for, none there, its name, gone while it was followed, or not to be had here. */
export type KeyboardState =
  { is: 'off' } | { is: 'none' } | { is: 'there'; name: string } | { is: 'gone'; name: string } | { is: 'refused' };

/**
 * Follow every MIDI keyboard of this computer (Web MIDI) until the function that comes back is called. The browser asks whether it may.
 *
 * @param hear what a keyboard does, and when, seconds on the clock of the page
 */
export function followKeyboards(hear: (message: KeyboardMessage, atS: number) => void, tell: (state: KeyboardState) => void): () => void {
  let over = false;
  let access: MIDIAccess | undefined;
  let last = '';
  const look = () => {
    if (over || !access) return;
    const there = [...access.inputs.values()].filter((input) => input.state === 'connected');
    for (const input of there)
      // When the key went down, not when a busy page comes to it.
      input.onmidimessage = ({ data, timeStamp }) => {
        const message = data && keyboardMessage(data);
        if (message) hear(message, timeStamp / 1000);
      };
    if (there.length > 0) last = there.map((input) => input.name ?? 'keyboard').join(', ');
    tell(there.length > 0 ? { is: 'there', name: last } : last ? { is: 'gone', name: last } : { is: 'none' });
  };
  if (!navigator.requestMIDIAccess) {
    tell({ is: 'refused' });
    return () => {};
  }
  navigator.requestMIDIAccess().then(
    (given) => {
      access = given;
      access.onstatechange = look;
      look();
    },
    () => tell({ is: 'refused' }),
  );
  return () => {
    over = true;
    if (!access) return;
    access.onstatechange = null;
    for (const input of access.inputs.values()) input.onmidimessage = null;
  };
}

/** Notes under a hand, on the sampled piano: at once, not on the follow-along's clock, which looks ahead. @throws where it can't be had. */
export async function soundKey(message: KeyboardMessage): Promise<void> {
  const { tone, sampler } = await loadPiano();
  await wake(tone);
  if (message.does === 'press') sampler.triggerAttack(noteName(message.midi), tone.immediate(), message.velocity);
  else if (message.does === 'release') sampler.triggerRelease(noteName(message.midi), tone.immediate());
}

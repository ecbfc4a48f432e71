import type { Id } from '../core/format/id';
import { z } from 'zod';
import type { HeardInput } from '../contract/inputs';
import type { HeardBlind } from '../contract/answers';
import { AskedPass, candidatesOf, drawPasses, Ears, earsOf, isSamePass, machineOn } from '../core/ears/passes';
import type { VoiceMap } from '../core/map/types';
import type { TakeFindings } from '../core/take/types';
import { StudioTx } from '../data/client';
import { forgetHeard, heardBlind, heardBlindOf, keepHeard, keptPassaggi, setMachine, slidesToHear } from '../data/ears';
import { analysisOf, findTake, takesOfSinger } from '../data/takes';
import type { Context } from './context';
import { Refusal } from './refusal';

/** Passes drawn at a time, and takes they are drawn from: some that somebody has answered, so that ears can be compared, and others. */
const DRAWN = 8;
const FROM = { answered: 30, any: 40 } as const;

/** Whose ear it is: whoever asks. */
const earOf = ({ tx }: Context) => tx.actorId ?? '';

/** How the ears of whoever asks compare with the machine, with other coaches, and with themselves. */
export const viewEars = async (ctx: Context): Promise<Ears> => earsOf(await heardBlind(ctx.tx), earOf(ctx));

/** Passes to be heard blind: nothing of who sings them or of what the machine hears. */
export async function passesToHear(ctx: Context): Promise<AskedPass[]> {
  const { tx, now } = ctx;
  const slides = [...(await slidesToHear(tx, FROM.answered, true)), ...(await slidesToHear(tx, FROM.any, false))];
  const passaggi = await keptPassaggi(tx, [...new Set(slides.map((slide) => slide.singerId))]);
  const candidates = [...new Map(slides.map((slide) => [slide.id, slide])).values()].flatMap(({ id, singerId, findings }) =>
    candidatesOf(id, findings, passaggi.get(singerId) ?? []),
  );
  const drawn = drawPasses(candidates, await heardBlind(tx), { coachId: earOf(ctx), now: now.getTime(), n: DRAWN, random: Math.random });
  return drawn.map(({ machine: _, ...asked }) => asked);
}

/** Keep what was heard in a pass, and tell what the machine and other coaches hear in it. @throws Refusal (not-found). */
export async function sayHeard(ctx: Context, { id, word, ...pass }: z.infer<typeof HeardInput>): Promise<HeardBlind> {
  const { tx } = ctx;
  const take = await findTake(tx, pass.takeId);
  const findings = take && (await analysisOf(tx, take.id))?.findings;
  if (!take || !findings) throw new Refusal('not-found', 'This take is gone, or not listened to yet: go on with the next one.');
  const passaggi = (await keptPassaggi(tx, [take.singerId])).get(take.singerId) ?? [];
  const machine = machineOn(pass, findings, passaggi);
  await keepHeard(tx, id, { pass, coachId: earOf(ctx), word, machine });
  const said = await heardBlind(tx);
  const others = said.filter((s) => s.coachId !== earOf(ctx) && isSamePass(s.pass, pass)).map((s) => s.word);
  return { machine, others, ears: earsOf(said, earOf(ctx)) };
}

/** A slip: whoever asks takes one word of theirs back, or (without `id`) all of them. How their ears compare now. */
export async function takeBackHeard(ctx: Context, id?: Id<'answer'>): Promise<Ears> {
  await forgetHeard(ctx.tx, earOf(ctx), id);
  return viewEars(ctx);
}

/** A voice was heard anew: what the machine says of its passes that coaches have heard blind is brought in step. */
export async function hearPassesAgain(tx: StudioTx, singerId: Id<'singer'>, { passaggi }: VoiceMap): Promise<void> {
  const said = await heardBlindOf(tx, singerId);
  if (said.length === 0) return;
  const takes = new Map<string, TakeFindings | null>((await takesOfSinger(tx, singerId)).map((take) => [take.id, take.findings]));
  for (const { id, pass, machine } of said) {
    const findings = takes.get(pass.takeId);
    if (!findings) continue;
    const now = machineOn(pass, findings, passaggi);
    if (now.name !== machine.name || now.midi !== machine.midi) await setMachine(tx, id, now);
  }
}

// For whoever runs the machine: account list; account reset ADDRESS prints the way to a new password; account without-code ADDRESS.
import { randomBytes } from 'node:crypto';
import { coachByEmail, everyCoach, noteDoor, offerNewPassword, removeSecondFactor } from '../data/door';

const HOUR_MS = 3_600_000;
/** Without signs that steer a terminal: names are anybody's choosing. */
const plain = (text: string) => text.replace(/\p{C}/gu, '\uFFFD');
const say = (text: string) => process.stdout.write(`${text}\n`);

class AccountError extends Error {}

const OPERATOR = 'whoever runs the machine';

async function known(address: string) {
  const coach = await coachByEmail(address.toLowerCase());
  if (!coach) throw new AccountError(`There is no account with the address ${address}: npm run account -- list shows all.`);
  return coach;
}

async function main() {
  const [what, address] = process.argv.slice(2);
  if (what === 'list') {
    for (const { name, email, role, studio } of await everyCoach())
      say([email, name, role ?? 'no place', studio ?? ''].map(plain).join('\t'));
  } else if (what === 'reset' && address) {
    const coach = await known(address);
    const token = randomBytes(24).toString('base64url');
    if (coach.studioId) await noteDoor(coach.studioId, { actor: OPERATOR, actorId: null, did: 'offered a new password' });
    await offerNewPassword(coach.userId, token, new Date(Date.now() + HOUR_MS));
    say(`Within the hour, ${coach.name} sets a new password here:\n${process.env.WENDEL_URL}/new-password?token=${token}`);
  } else if (what === 'without-code' && address) {
    const coach = await known(address);
    await removeSecondFactor(coach.userId);
    if (coach.studioId)
      await noteDoor(coach.studioId, { actor: OPERATOR, actorId: null, did: 'changed', detail: 'no second factor is asked for' });
    say(`${plain(coach.name)} signs in with the password alone. Ask them to set up the codes anew.`);
  } else throw new AccountError('Say what to do: npm run account -- list, reset ADDRESS, or without-code ADDRESS');
}

main().then(
  () => process.exit(0),
  (error: Error) => {
    process.stderr.write(`${error instanceof AccountError ? error.message : (error.stack ?? error.message)}\n`);
    process.exit(1);
  },
);

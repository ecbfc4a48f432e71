import type { AddressInfo } from 'node:net';
import { SMTPServer } from 'smtp-server';

/** For tests: a mail server on loopback that writes down what it takes, and refuses everybody while `refuse` is set. */
export async function madeMailServer() {
  const made = { taken: [] as { to: string; text: string }[], refuse: false, stop };
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    onRcptTo: (_address, _session, done) => done(made.refuse ? new Error('No such mailbox') : null),
    onData(stream, session, done) {
      const parts: Buffer[] = [];
      stream.on('data', (part: Buffer) => parts.push(part));
      stream.on('end', () => {
        const to = (session.envelope.rcptTo[0] as { address: string }).address;
        made.taken.push({ to, text: Buffer.concat(parts).toString().replace(/=\r\n/g, '').replaceAll('=3D', '=') });
        done();
      });
    },
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  process.env.WENDEL_SMTP_URL = `smtp://127.0.0.1:${(server.server.address() as AddressInfo).port}`;
  process.env.WENDEL_MAIL_FROM = 'studio@barge.example';
  async function stop() {
    delete process.env.WENDEL_SMTP_URL;
    await new Promise<void>((resolve) => server.close(() => resolve()));
  }
  return made;
}

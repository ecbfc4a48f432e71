import type { Id } from '../core/format/id';
import type { StudioTx } from '../data/client';
import { insertMessage, messagesOf } from '../data/links';
import type { Context } from './context';

interface Message {
  singerId: Id<'singer'> | null;
  /** Whom it is for, in words, and where it goes; no address: by the coach's own hand. */
  recipient: string;
  address: string | null;
  subject: string;
  body: string;
  forOwners?: boolean;
}

/** Put a message in the studio's post. It is handed to the mail server, if there is one, once the transaction stands. */
export const post = (tx: StudioTx, { address, recipient, ...message }: Message): Promise<void> =>
  insertMessage(tx, { ...message, recipient: address ? `${recipient} <${address}>` : recipient, address });

/** What the studio has to send, newest first; what is for owners' eyes to owners only. */
export const viewMessages = ({ tx, as }: Context) => messagesOf(tx, as === 'owner');

/** @jest-environment node */
import { join } from 'node:path';
import { parse, type MessageFormatElement, TYPE } from '@formatjs/icu-messageformat-parser';
import { LANGUAGES } from '../core/format/say';
import { catalogueOf } from './catalogues';
import { allMessages } from './made-list';

/** The gaps and marks of a message: what the sentence around it has to fill. */
function gapsOf(parts: MessageFormatElement[], into = new Set<string>()): Set<string> {
  for (const part of parts) {
    if (part.type === TYPE.literal || part.type === TYPE.pound) continue;
    into.add(part.type === TYPE.tag ? `<${part.value}>` : part.value);
    if (part.type === TYPE.plural || part.type === TYPE.select) for (const { value } of Object.values(part.options)) gapsOf(value, into);
    if (part.type === TYPE.tag) gapsOf(part.children, into);
  }
  return into;
}

const messages = [...allMessages(join(__dirname, '..')).keys()].sort();

test('there are messages, and each is ICU that can be read', () => {
  expect(messages.length).toBeGreaterThan(2500);
  for (const message of messages) expect(() => parse(message)).not.toThrow();
});

describe.each(LANGUAGES.filter((language) => language !== 'en'))('%s', (language) => {
  test('has every message and no other, with the same gaps, none empty', async () => {
    const catalogue = await catalogueOf(language);
    const unlike: string[] = [];
    for (const message of messages) {
      const translated = catalogue[message];
      if (!translated?.trim()) unlike.push(`missing: ${message}`);
      else if (String([...gapsOf(parse(translated))].sort()) !== String([...gapsOf(parse(message))].sort()))
        unlike.push(`gaps: ${message} → ${translated}`);
    }
    const known = new Set(messages);
    for (const message of Object.keys(catalogue)) if (!known.has(message)) unlike.push(`superfluous: ${message}`);
    expect(unlike).toEqual([]);
  });

  test('begins and ends as the English does, so that parts still join', async () => {
    const catalogue = await catalogueOf(language);
    const edges = (text: string) => [/^\s/.test(text), /\s$/.test(text)];
    expect(messages.filter((message) => String(edges(catalogue[message]!)) !== String(edges(message)))).toEqual([]);
  });
});

test('French keeps its marks with the word they belong to: no line begins with one, or ends on an opening one', async () => {
  const catalogue = await catalogueOf('fr');
  // A plain space is where a line may break.
  expect(Object.values(catalogue).filter((words) => / [;?!»]| :(?!:)|« /.test(words ?? ''))).toEqual([]);
});

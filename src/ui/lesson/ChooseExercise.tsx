'use client';
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/react';
import { Window } from '../kit/Window';
import { useMemo, useState } from 'react';
import { notesInWords } from '../../core/exercise/keys';
import type { Offer } from '../../core/lesson/exercise-step';
import { STRAND_WORDS } from '../kit/words-of-work';
import { ANYTHING, filtered } from '../plan/filter';
import { found, OfferGroup } from './offers';
import { useLanguage } from '../language/language';

/** What else could be sung now: looked for by name, sound or purpose, and begun with Enter. */
export function ChooseExercise({
  groups,
  onChoose,
  onClose,
}: {
  groups: readonly OfferGroup[];
  onChoose: (offer: Offer) => void;
  onClose: () => void;
}) {
  const { t } = useLanguage();
  const [text, setText] = useState('');
  const shown = useMemo(() => found(groups, (e) => filtered([e], { ...ANYTHING, text }).length > 0), [groups, text]);
  return (
    <Window title={t('What is sung now?')} onClose={onClose}>
      <Combobox<Offer> immediate onChange={(offer) => offer && onChoose(offer)}>
        <ComboboxInput
          autoFocus
          className="field w-full text-lg"
          aria-label={t('Look for an exercise or a phrase')}
          placeholder={t('a name, a sound, or what it is for')}
          autoComplete="off"
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => event.key === 'Escape' && onClose()}
        />
        <ComboboxOptions static modal={false} className="max-h-[55vh] overflow-y-auto px-1" data-testid="offers">
          {shown.map((group) => (
            <div key={group.name} role="group" aria-label={t(group.name)}>
              <p className="pt-2 text-sm font-semibold text-soft" aria-hidden>
                {t(group.name)}
              </p>
              {group.offers.map((offer) => (
                <Line key={offer.exercise.id} offer={offer} />
              ))}
            </div>
          ))}
          {shown.length === 0 && <p className="py-2 text-soft">{t('Nothing of that name. A word less finds more.')}</p>}
        </ComboboxOptions>
      </Combobox>
    </Window>
  );
}

function Line({ offer }: { offer: Offer }) {
  const { t } = useLanguage();
  const { exercise, keys, sound, because } = offer;
  const none = because ? t('not today') : t('no key of it fits this voice');
  return (
    <ComboboxOption
      value={offer}
      disabled={keys.length === 0}
      title={keys.length === 0 && because ? t(because.says) : t(exercise.how)}
      className="flex min-h-11 cursor-pointer flex-wrap items-center gap-x-3 rounded-md px-2 data-disabled:cursor-default data-disabled:text-soft data-focus:bg-paper data-focus:outline-2 data-focus:outline-accent"
    >
      <span className="font-semibold">{t(exercise.name)}</span>
      <span className="text-soft">
        {keys.length === 0 ? none : t('“{sound}”, {keys}', { sound, keys: notesInWords(keys) })} · {t(STRAND_WORDS[exercise.strand])}{' '}
        {exercise.grade}
      </span>
    </ComboboxOption>
  );
}

'use client';
import { useRouter } from 'next/navigation';
import { type Language, LANGUAGES } from '../../core/format/say';
import { type Naming, NAMINGS, nameOf } from '../../core/music/naming';
import { LANGUAGE_COOKIE, LANGUAGE_NAMES, MOVABLE_DO_COOKIE, NAMING_COOKIE, namingIn } from '../../words/catalogues';
import { texts } from '../../core/words/said';
import { Choice } from '../kit/Choice';
import { useLanguage } from './language';

const A_YEAR_S = 31_536_000;
/** Shown of each way to name notes: middle C, F sharp, B flat and B over it. */
const SHOWN = [60, 66, 70, 71];

const UNDER_NOTES: readonly (readonly ['no' | 'yes', string])[] = texts([
  ['no', 'nothing'],
  ['yes', 'do re mi from the key’s own note (movable do)'],
]);

const remember = (name: string, value: string) => {
  document.cookie = `${name}=${value}; path=/; max-age=${A_YEAR_S}; samesite=lax`;
};

/** In which language this browser's pages speak, and how they call notes. */
export function LanguageChoice() {
  const { tongue, t } = useLanguage();
  const router = useRouter();
  const choose = (language: Language, naming: Naming) => {
    remember(LANGUAGE_COOKIE, language);
    remember(NAMING_COOKIE, naming);
    router.refresh();
  };
  const named = (naming: Naming) => SHOWN.map((midi) => nameOf(midi, naming, midi === 70)).join('  ');
  return (
    <div className="flex flex-wrap gap-3">
      <Choice
        label={t('Language')}
        value={tongue.language}
        options={LANGUAGES.map((l) => [l, LANGUAGE_NAMES[l]] as const)}
        onChange={(language) => choose(language, namingIn(language))}
      />
      <Choice
        label={t('Names of notes')}
        value={tongue.naming}
        options={NAMINGS.map((n) => [n, named(n)] as const)}
        onChange={(naming) => choose(tongue.language, naming)}
      />
    </div>
  );
}

/** Whether exercises are named in movable do as well. */
export function MovableDoChoice() {
  const { tongue, t } = useLanguage();
  const router = useRouter();
  return (
    <Choice
      label={t('Under the notes of exercises')}
      value={tongue.movableDo ? 'yes' : 'no'}
      options={UNDER_NOTES}
      onChange={(movableDo) => {
        remember(MOVABLE_DO_COOKIE, movableDo);
        router.refresh();
      }}
    />
  );
}

'use client';
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { useRouter } from 'next/navigation';
import { FormEvent, useState } from 'react';
import { SCHOOLS } from '../../core/map/schools';
import { Age, AGES, BY_AGE } from '../../core/plan/ages';
import { INTAKE_QUESTIONS } from '../../core/plan/intake';
import { VOICE_TYPES } from '../../core/plan/voice-types';
import { STYLE_WORDS, STYLES, WISH_WORDS, WISHES } from '../../core/plan/which-school';
import { Notice } from '../kit/Notice';
import type { SingerRecord } from '../../contract/answers';
import type { BodyOf } from '../../contract/routes';
import { addressOf, ask } from '../../sync/ask';
import { useLanguage } from '../language/language';
import type { Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

/** Adding a singer, or changing what is known of one, putting them away, or deleting them for good. */
export function EditSinger({ singer, onClose }: { singer?: SingerRecord; onClose: () => void }) {
  const { t } = useLanguage();
  const router = useRouter();
  const [problem, setProblem] = useState<Said | null>(null);
  const [age, setAge] = useState<Age | ''>(singer?.intake?.age ?? '');
  const [said, setSaid] = useState(singer?.intake?.minor ?? false);
  // An age says by itself whether somebody is of age.
  const minor = age ? BY_AGE[age].minor : said;
  const [typed, setTyped] = useState('');

  const attempt = async (work: () => Promise<void>) => {
    setProblem(null);
    try {
      await work();
      onClose();
      router.refresh();
    } catch (error) {
      setProblem(saidOf(error));
    }
  };

  const save = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const text = (name: string) => String(form.get(name) ?? '');
    const fields = {
      name: text('name'),
      part: text('part'),
      voiceType: text('voiceType'),
      note: text('note'),
      email: text('email').trim() || null,
      school: text('school') || null,
      intake: {
        consent: text('consent') || 'none',
        minor,
        changing: form.has('changing'),
        professional: form.has('professional'),
        ...(age ? { age } : {}),
        ...(text('style') ? { style: text('style') } : {}),
        ...(text('wish') ? { wish: text('wish') } : {}),
        answers: Object.fromEntries(INTAKE_QUESTIONS.flatMap(({ id }) => (text(`told-${id}`) ? [[id, text(`told-${id}`)]] : []))),
        noCategories: form.has('noCategories'),
        goals: text('goals'),
        health: text('health'),
      },
    } as BodyOf<'POST /api/singers'>;
    void attempt(async () => {
      if (singer) return void (await ask('PUT /api/singers/[singerId]', { params: { singerId: singer.id }, body: fields }));
      const { id } = await ask('POST /api/singers', { body: fields });
      router.push(`/singers/${id}/listen`);
    });
  };

  const remove = () => attempt(() => ask('DELETE /api/singers/[singerId]', { params: { singerId: singer!.id }, body: { name: typed } }));
  const putAway = (archived: boolean) =>
    attempt(() => ask('PATCH /api/singers/[singerId]', { params: { singerId: singer!.id }, body: { archived } }));

  return (
    <Dialog open onClose={onClose} className="relative z-10">
      <div className="fixed inset-0 bg-black/40" aria-hidden="true" />
      <div className="fixed inset-0 grid place-items-center overflow-y-auto p-4">
        <DialogPanel className="card w-full max-w-3xl">
          <DialogTitle className="text-xl font-bold">{singer ? t('About {name}', { name: singer.name }) : t('A new singer')}</DialogTitle>
          <form onSubmit={save} className="mt-3 grid gap-3 sm:grid-cols-2 md:grid-cols-3">
            <Field label={t('Name')}>
              <input className="field text-base" name="name" required maxLength={120} autoComplete="off" defaultValue={singer?.name} />
            </Field>
            <Field label={t('Voice, as far as you know')}>
              <select className="field text-base" name="voiceType" defaultValue={singer?.voiceType ?? 'mezzo'}>
                {VOICE_TYPES.map((type) => (
                  <option key={type.id} value={type.id}>
                    {t(type.name)}
                  </option>
                ))}
              </select>
            </Field>
            <Field label={t('Part (optional)')}>
              <input className="field text-base" name="part" maxLength={120} autoComplete="off" defaultValue={singer?.part} />
            </Field>
            <Field label={t('What they sing')}>
              <MaySay name="style" options={STYLES} words={STYLE_WORDS} said={singer?.intake?.style} />
            </Field>
            <Field label={t('What they want most')}>
              <MaySay name="wish" options={WISHES} words={WISH_WORDS} said={singer?.intake?.wish} />
            </Field>
            <Field label={t('In their own words (optional)')}>
              <input className="field text-base" name="goals" maxLength={2000} autoComplete="off" defaultValue={singer?.intake?.goals} />
            </Field>
            <Field label={t('Health you should know of (optional)')}>
              <input className="field text-base" name="health" maxLength={2000} autoComplete="off" defaultValue={singer?.intake?.health} />
            </Field>
            <Field label={t('E-mail address, for the practice page (optional)')}>
              <input
                className="field text-base"
                name="email"
                type="email"
                maxLength={200}
                autoComplete="off"
                defaultValue={singer?.email ?? ''}
              />
            </Field>
            <Field label={t('Note (optional)')}>
              <input className="field text-base" name="note" maxLength={2000} autoComplete="off" defaultValue={singer?.note} />
            </Field>
            <Field label={t('Taught as')}>
              <select className="field text-base" name="school" defaultValue={singer?.school ?? ''}>
                <option value="">{t('the studio teaches')}</option>
                {SCHOOLS.map((s) => (
                  <option key={s.id} value={s.id}>
                    {t(s.name)}
                  </option>
                ))}
              </select>
            </Field>
            <Field label={t('Age')}>
              <select className="field text-base" name="age" value={age} onChange={(e) => setAge(e.target.value as Age | '')}>
                <option value="">{t('not said')}</option>
                {AGES.map((a) => (
                  <option key={a} value={a}>
                    {t(BY_AGE[a].name)}
                  </option>
                ))}
              </select>
            </Field>
            <label className="flex min-h-11 items-center gap-2 self-end">
              <input type="checkbox" className="size-5" checked={minor} disabled={age !== ''} onChange={(e) => setSaid(e.target.checked)} />{' '}
              {t('Not of age')}
            </label>
            <Field label={minor ? t('A guardian agreed to recording') : t('Agreed to be recorded')}>
              <select className="field text-base" name="consent" key={String(minor)} defaultValue={singer?.intake?.consent ?? 'none'}>
                <option value="none">{t('not yet')}</option>
                {minor ? (
                  <option value="guardian">{t('yes, the guardian')}</option>
                ) : (
                  <option value="singer">{t('yes, the singer')}</option>
                )}
              </select>
            </Field>
            <label className="flex min-h-11 items-center gap-2">
              <input type="checkbox" className="size-5" name="changing" defaultChecked={singer?.intake?.changing} />{' '}
              {t('The voice is changing')}
            </label>
            <label className="flex min-h-11 items-center gap-2">
              <input type="checkbox" className="size-5" name="professional" defaultChecked={singer?.intake?.professional} />{' '}
              {t('Lives by the voice')}
            </label>
            <label className="flex min-h-11 items-center gap-2">
              <input type="checkbox" className="size-5" name="noCategories" defaultChecked={singer?.intake?.noCategories} />{' '}
              {t('No voice categories')}
            </label>
            <details className="sm:col-span-2 md:col-span-3">
              <summary className="min-h-11 cursor-pointer content-center font-semibold">
                {t('Asked once about health (coaches only see it)')}
              </summary>
              <ul className="flex flex-col gap-2">
                {INTAKE_QUESTIONS.map(({ id, asks, says }) => (
                  <li key={id} className="grid grid-cols-[1fr_8rem] items-center gap-2 text-sm">
                    <label htmlFor={`told-${id}`} title={t(says)}>
                      {t(asks)}
                    </label>
                    <select id={`told-${id}`} name={`told-${id}`} className="field" defaultValue={singer?.intake?.answers?.[id] ?? ''}>
                      <option value="">{t('not asked')}</option>
                      <option value="no">{t('no')}</option>
                      <option value="yes">{t('yes')}</option>
                      <option value="rather-not">{t('rather not')}</option>
                    </select>
                  </li>
                ))}
              </ul>
            </details>
            {problem && (
              <div className="sm:col-span-2 md:col-span-3">
                <Notice>{t(problem)}</Notice>
              </div>
            )}
            <div className="flex justify-end gap-2 sm:col-span-2 md:col-span-3">
              <button type="button" className="button" onClick={onClose}>
                {t('Cancel')}
              </button>
              <button className="button-main">{singer ? t('Save') : t('Add and listen')}</button>
            </div>
          </form>
          {singer && (
            <details className="mt-4 border-t border-line pt-3">
              <summary className="cursor-pointer font-semibold">{t('Put away or delete')}</summary>
              <div className="mt-2 flex flex-wrap items-center gap-2">
                <button className="button" onClick={() => void putAway(!singer.archived)}>
                  {singer.archived ? t('Bring back to the list') : t('Put away')}
                </button>
                <span className="text-sm text-soft">{t('Nothing is lost; they are out of the list until you bring them back.')}</span>
              </div>
              <p className="mt-3">
                {t('Deleting takes every recording, mark, lesson and practice sheet of {name} with it, for good.', {
                  name: { own: singer.name },
                })}{' '}
                <a
                  className="font-semibold underline"
                  href={addressOf('GET /api/singers/[singerId]/export', { singerId: singer.id })}
                  download
                >
                  {t('Keep a copy first')}
                </a>
                .
              </p>
              <div className="mt-2 flex flex-wrap gap-2">
                <label className="flex flex-col gap-1 text-sm text-soft">
                  {t('Type the name to delete')}
                  <input className="field text-base" value={typed} onChange={(e) => setTyped(e.target.value)} autoComplete="off" />
                </label>
                <button className="button self-end" disabled={typed.trim() !== singer.name} onClick={() => void remove()}>
                  {t('Delete for good')}
                </button>
              </div>
            </details>
          )}
        </DialogPanel>
      </div>
    </Dialog>
  );
}

function Field({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <label className="flex flex-col gap-1 text-sm text-soft">
      {label}
      {children}
    </label>
  );
}

/** One of some things that may be said at intake, or not. */
function MaySay<T extends string>({
  name,
  options,
  words,
  said,
}: {
  name: string;
  options: readonly T[];
  words: Record<T, string>;
  said?: T;
}) {
  const { t } = useLanguage();
  return (
    <select className="field text-base" name={name} defaultValue={said ?? ''}>
      <option value="">{t('not said')}</option>
      {options.map((o) => (
        <option key={o} value={o}>
          {words[o]}
        </option>
      ))}
    </select>
  );
}

'use client';
import type { FindingName } from '../../core/map/types';
import {
  closestCenter,
  CollisionDetection,
  DndContext,
  DragEndEvent,
  DragOverlay,
  KeyboardSensor,
  PointerSensor,
  pointerWithin,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { arrayMove, sortableKeyboardCoordinates } from '@dnd-kit/sortable';
import { Tab, TabGroup, TabList, TabPanel, TabPanels } from '@headlessui/react';
import { Redo2, RotateCcw, Undo2 } from 'lucide-react';
import { Link } from '../kit/Link';
import { useRouter } from 'next/navigation';
import { useId, useMemo, useState } from 'react';
import type { Exercise, Strand } from '../../core/exercise/types';
import { schoolById } from '../../core/map/schools';
import { itemByHand, placeFor } from '../../core/plan/arrange';
import { compare } from '../../core/plan/edits';
import { planFor } from '../../core/plan/plan';
import { inPhase } from '../../core/plan/request';
import type { Planning } from '../../core/plan/check';
import { RULES } from '../../core/plan/rules';
import { askingOf, proposedSchool, type Style, type Wish } from '../../core/plan/which-school';
import type { Rung } from '../../core/plan/progress';
import type { Plan, PlanItem } from '../../core/plan/types';
import { ruleForToday } from '../../core/plan/safety';
import type { Notice as HealthNotice } from '../../core/practice/health';
import { chaptersOf, type Stand } from '../../core/practice/chapters';
import { gatesOf } from '../../core/practice/gates';
import { readinessOn } from '../../core/practice/readiness';
import { LOWER_BY } from '../../core/practice/work-of-day';
import type { Entry } from '../../core/practice/types';
import { ForCoaches } from '../kit/may-change';
import { Notice } from '../kit/Notice';
import { useShortcuts } from '../kit/useShortcuts';
import { useLadderScale } from '../ladder/useLadderScale';
import { READY_WORDS } from '../practice/words';
import { AssignPanel } from './AssignPanel';
import { dayKey } from './days';
import { DifferenceList } from './DifferenceList';
import { GradeLadder } from './GradeLadder';
import type { Model } from '../../core/exercise/model';
import { ModelKeeper } from '../models/ModelKeeper';
import { ItemDetail } from './ItemDetail';
import { KeysPicture } from './KeysPicture';
import { SchoolProposed } from './SchoolProposed';
import { SetsMenu } from './SetsMenu';
import { PhaseEnd } from './PhaseEnd';
import { Proposals } from './Proposals';
import { ShelfPanel } from './ShelfPanel';
import { TermsBar } from './TermsBar';
import { RoadPanel } from './RoadPanel';
import { ofSinger, PlanSource, usePlanning } from './usePlanning';
import { WeekBoard } from './WeekBoard';
import { ask } from '../../sync/ask';
import { useLanguage } from '../language/language';

import { said, texts, Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

interface Props {
  view: PlanSource & {
    singer: PlanSource['singer'] & { name: string; goals: string; style?: Style; wish?: Wish };
    templates: { id: string; name: string; items: PlanItem[] }[];
    others: { id: string; singer: string }[];
    assigned: { id: string; createdAt: Date; startsOn: string; stand: Stand | null; items: PlanItem[] }[];
    schoolSaid: boolean;
    /** The studio's own day. */
    day: string;
    practised: Entry[];
    notices: HealthNotice[];
    models: Model[];
    /** Titles of the singer's songs whose key is chosen. */
    songs: string[];
  };
}

const LADDER_HEIGHT = 180;
const NONE = {};
const TAB =
  'min-h-9 flex-1 border-b-2 border-line text-sm font-semibold text-soft data-selected:border-accent data-selected:text-ink focus:outline-none data-focus:outline-3 data-focus:outline-accent';

/** Findings as they stand in a sentence. */
const WORKED_ON: Record<FindingName, string> = texts({
  flip: 'the flip',
  toggle: 'the toggle',
  blended: 'the blend',
  'pulled-chest': 'pulled chest',
  'no-chest': 'missing chest',
  'weak-first-head': 'weak first head notes',
  'uneven-loudness': 'uneven loudness',
});

/** A card from the shelf goes where the hand is; a row of the week to the nearest row. */
const collision: CollisionDetection = (args) =>
  String(args.active.id).startsWith('shelf:') && args.pointerCoordinates ? pointerWithin(args) : closestCenter(args);

/** Choosing and assigning: the shelf, the week with its reasons and conflicts, and each exercise against the voice. */
export function PlanRoom({ view }: Props) {
  const { t } = useLanguage();
  const { singer } = view;
  const [school, setSchool] = useState(view.school);
  const planning = usePlanning(view, school);
  if (!planning.plan || !planning.p)
    return (
      <div className="card max-w-2xl text-lg">
        <p>{t('Exercises are chosen from the map, and there is none yet. Record a siren first.')}</p>
        <ForCoaches>
          <Link className="button-main mt-3" href={`/singers/${singer.id}/listen`}>
            {t('Listen to {name}', { name: singer.name })}
          </Link>
        </ForCoaches>
      </div>
    );
  return <Planner view={view} school={school} onSchool={setSchool} planning={planning} plan={planning.plan} p={planning.p} />;
}

function Planner({
  view,
  school,
  onSchool,
  planning,
  plan,
  p,
}: Props & {
  school: PlanSource['school'];
  onSchool: (school: PlanSource['school']) => void;
  planning: ReturnType<typeof usePlanning>;
  plan: Plan;
  p: Planning;
}) {
  const { dateOf, rich, t } = useLanguage();
  const { singer, map, assigned } = view;
  const { items, terms, conflicts, setItems, setTerms, undo, redo } = planning;
  const [selected, setSelected] = useState<string | null>(null);
  const [startsOn, setStartsOn] = useState(() => dayKey(new Date()));
  const [road, setRoad] = useState(false);
  const [carried, setCarried] = useState<Exercise | null>(null);
  const [told, setTold] = useState('');
  const [problem, setProblem] = useState<Said | null>(null);
  const scale = useLadderScale(map, singer.voiceType, LADDER_HEIGHT);
  const dnd = useId();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const shown = items.find((it) => it.exerciseId === selected) ?? items[0];
  const exercise = shown && p.find(shown.exerciseId);

  useShortcuts(
    [
      { key: 'z', command: true, says: said('takes a change back'), act: undo },
      { key: 'y', command: true, says: said('and makes it again'), act: redo },
    ],
    true,
  );

  const add = (e: Exercise, at?: number) => {
    const item = itemByHand(e, items, p);
    if (!item) return setTold(t('No key of {name} stays inside this voice.', { name: e.name }));
    const next = [...items];
    next.splice(at ?? placeFor(item, items), 0, item);
    setItems(next);
    setSelected(e.id);
    setTold(t('{name} is in the week.', { name: e.name }));
  };
  const dropped = ({ active, over }: DragEndEvent) => {
    if (!over) return;
    const at = (id: unknown) => items.findIndex((it) => it.exerciseId === id);
    const id = String(active.id);
    if (id.startsWith('shelf:')) {
      const e = p.find(id.slice('shelf:'.length));
      if (e) add(e, over.id === 'week' ? undefined : Math.max(0, at(over.id)));
    } else if (over.id !== 'week' && active.id !== over.id) setItems(arrayMove(items, at(active.id), at(over.id)));
  };
  const edit = (id: string, part: Partial<PlanItem>) => setItems(items.map((it) => (it.exerciseId === id ? { ...it, ...part } : it)));
  const climb = (item: PlanItem, rung: Rung) => {
    if (rung.kind === 'sound') edit(item.exerciseId, { sound: rung.sound });
    else if (rung.kind === 'tempo') edit(item.exerciseId, { tempo: rung.tempo });
    else if (rung.kind === 'grade') confirm(rung.strand, rung.grade);
  };
  const confirm = (strand: Strand, grade: number | null) => {
    setTerms({ ...terms, grades: { ...terms.grades, [strand]: grade ?? undefined } });
  };
  const whole = conflicts.filter((c) => c.exerciseId === null);
  const { style, wish } = singer;
  const proposed = useMemo(() => proposedSchool(askingOf(p, { style, wish }), view.school), [p, style, wish, view.school]);
  const phase = plan.phases[plan.phase];
  const gates = useMemo(() => {
    const chapter = chaptersOf(assigned).at(-1);
    return gatesOf(phase, view.practised, chapter?.phase === phase.name ? chapter.from : undefined);
  }, [assigned, phase, view.practised]);
  const readiness = useMemo(() => readinessOn(view.practised, view.day), [view.practised, view.day]);
  // The road is printed by itself.
  const offPaper = road ? 'print:hidden' : '';

  return (
    <DndContext
      id={dnd}
      sensors={sensors}
      collisionDetection={collision}
      onDragStart={({ active }) =>
        setCarried(String(active.id).startsWith('shelf:') ? (p.find(String(active.id).slice('shelf:'.length)) ?? null) : null)
      }
      onDragCancel={() => setCarried(null)}
      onDragEnd={(event) => (setCarried(null), dropped(event))}
    >
      {/* A card from the shelf goes with the hand; a row of the week moves itself. */}
      <DragOverlay dropAnimation={null}>
        {carried && <p className="rounded-lg border border-accent bg-card px-3 py-2 text-sm font-semibold shadow-lg">{t(carried.name)}</p>}
      </DragOverlay>
      <div className="flex flex-col gap-2">
        <div className={`flex flex-wrap items-end gap-2 ${offPaper}`}>
          <TermsBar terms={terms} phases={plan.phases} phase={plan.phase} school={school} onTerms={setTerms} onSchool={onSchool} />
          <div className="ml-auto flex flex-wrap justify-end gap-2">
            <button
              className="button px-3"
              disabled={!planning.edited}
              onClick={planning.toSuggestion}
              title={t('Back to what Wendel suggests')}
            >
              <RotateCcw aria-hidden size={18} /> <span className="sr-only">{t('Back to the suggestion')}</span>
            </button>
            <button className="button px-3" disabled={!undo} onClick={undo ?? undefined} title={t('Undo (Ctrl Z)')}>
              <Undo2 aria-hidden size={18} /> <span className="sr-only">{t('Undo')}</span>
            </button>
            <button className="button px-3" disabled={!redo} onClick={redo ?? undefined} title={t('Redo (Ctrl Y)')}>
              <Redo2 aria-hidden size={18} /> <span className="sr-only">{t('Redo')}</span>
            </button>
            <ForCoaches>
              <SetsMenu
                items={items}
                p={p}
                templates={view.templates}
                others={view.others}
                assigned={assigned}
                onItems={(next, words) => {
                  setItems(next);
                  setTold(words);
                }}
                onProblem={setProblem}
              />
              <AssignPanel singer={singer} items={items} startsOn={startsOn} onStartsOn={setStartsOn} conflicts={conflicts.length} />
            </ForCoaches>
          </div>
        </div>
        <div className={`flex flex-col gap-2 ${offPaper}`}>
          <p>
            {plan.narrow ? (
              <>
                {rich(
                  'Only the comfortable band, between <b>{low}</b> and <b>{high}</b>.',
                  { low: { note: plan.anchors.low }, high: { note: plan.anchors.high } },
                  { b: (inside) => <b>{inside}</b> },
                )}{' '}
              </>
            ) : plan.worksOn.length ? (
              <>
                {rich(
                  plan.changeMeasured
                    ? 'Works on <b>{findings}</b> around <b>{change}</b>.'
                    : 'Works on <b>{findings}</b> around <b>{change}</b>, where the change is expected: none was measured yet.',
                  { findings: { all: plan.worksOn.map((n) => WORKED_ON[n]), as: 'and' }, change: { note: plan.anchors.change } },
                  { b: (inside) => <b>{inside}</b> },
                )}{' '}
              </>
            ) : (
              <>{t('Nothing stands out in the map yet: a plain set around {change}.', { change: { note: plan.anchors.change } })}</>
            )}
            <span className="text-soft">
              {t('{aim} Until {until}.', { aim: plan.phases[plan.phase].aim, until: plan.phases[plan.phase].until })}
            </span>
          </p>
          {school !== view.school && (
            <SchoolTried view={view} school={school} terms={terms} items={items} p={p} onBack={() => onSchool(view.school)} />
          )}
          <PhaseEnd
            gates={gates}
            next={plan.phases[plan.phase + 1]}
            name={(id) => p.find(id)?.name ?? id}
            onNext={() => setTerms(inPhase(terms, plan.phases, plan.phase + 1))}
          />
          {school === view.school && !view.schoolSaid && proposed && (
            <SchoolProposed name={singer.name} proposed={proposed} onLook={() => onSchool(proposed.instead.id)} />
          )}
          {plan.leftItsWay && (
            <Notice>
              {t(
                'The map now asks for another way than the phase that was begun. Choose a phase above; until then the week is that of the first.',
              )}
            </Notice>
          )}
          {problem && <Notice>{t(problem)}</Notice>}
          {view.notices.map((n) => (
            <Notice key={n.id}>{t(n.says)}</Notice>
          ))}
          {view.today && ruleForToday(view.today) && (
            <p className="rounded-lg border-2 border-band px-2 py-1" data-testid="today">
              <b>{t('Today:')}</b> {t(ruleForToday(view.today)!.says)}
            </p>
          )}
          {readiness && readiness.lowerSt > 0 && (
            <p className="rounded-lg border-2 border-band px-2 py-1" data-testid="readiness">
              <b>{t('Today’s voice:')}</b> {t(READY_WORDS[readiness.lowerSt])}. {readiness.because.map((why) => t(why)).join(' ')}{' '}
              {t('On the phone what reaches above the change is {by} lower, and {percent} % of the minutes.', {
                by: LOWER_BY[readiness.lowerSt],
                percent: Math.round(readiness.share * 100),
              })}
            </p>
          )}
        </div>
        <p aria-live="polite" className="sr-only">
          {told}
        </p>
        <div className="grid gap-4 lg:grid-cols-[15.5rem_minmax(0,1fr)_21rem] print:block">
          <div className={`order-3 flex flex-col lg:order-1 lg:h-[36rem] ${offPaper}`}>
            <ShelfPanel p={p} taken={new Set(items.map((it) => it.exerciseId))} onAdd={add} />
          </div>
          <section aria-label={t('Week')} className="order-1 min-w-0 lg:order-2">
            {whole.map((c) => (
              <p key={t(c.says)} className="mb-1 rounded-lg border-2 border-band px-2 py-1 text-sm">
                <b>{t(c.says)}</b> {t(RULES[c.rule])}
              </p>
            ))}
            <div className="mb-2 flex gap-1 print:hidden" role="group" aria-label={t('How far ahead')}>
              <Ahead on={!road} onClick={() => setRoad(false)}>
                {t('This week')}
              </Ahead>
              <Ahead on={road} onClick={() => setRoad(true)}>
                {t('The road ahead')}
              </Ahead>
            </div>
            {road ? (
              <RoadPanel
                singer={singer.name}
                request={planning.request}
                from={startsOn}
                dates={terms.dates ?? []}
                onDates={(dates) => setTerms({ ...terms, dates })}
                phaseWeeks={terms.phaseWeeks ?? NONE}
                onPhaseWeeks={(phaseWeeks) => setTerms({ ...terms, phaseWeeks })}
                songs={view.songs}
                name={(id) => p.find(id)?.name ?? id}
              />
            ) : (
              <WeekBoard
                items={items}
                p={p}
                startsOn={startsOn}
                conflicts={conflicts}
                selected={shown?.exerciseId ?? null}
                onSelect={setSelected}
                onChange={setItems}
              />
            )}
          </section>
          <div className={`order-2 flex min-w-0 flex-col gap-2 lg:order-3 ${offPaper}`}>
            <KeysPicture scale={scale} map={map} items={items} find={p.find} selected={shown?.exerciseId ?? null} />
            <TabGroup>
              <TabList className="flex">
                <Tab className={TAB}>{t('Exercise')}</Tab>
                <Tab className={TAB}>{t('Grades')}</Tab>
                <Tab className={TAB}>{t('Left out')}</Tab>
                <Tab className={TAB}>{t('Practised')}</Tab>
                <Tab className={TAB}>{t('Before')}</Tab>
              </TabList>
              <TabPanels className="pt-2">
                <TabPanel>
                  {shown && exercise ? (
                    <ItemDetail
                      key={shown.exerciseId}
                      item={shown}
                      exercise={exercise}
                      changeMidi={p.anchors.change}
                      ceiling={view.map.ceiling}
                      conflicts={conflicts.filter((c) => c.exerciseId === shown.exerciseId)}
                      models={<ModelKeeper exercise={exercise} singer={singer} models={view.models} />}
                      onEdit={(part) => edit(shown.exerciseId, part)}
                    />
                  ) : (
                    <p className="text-soft">{t('The week is empty.')}</p>
                  )}
                </TabPanel>
                <TabPanel>
                  <GradeLadder grades={plan.grades} confirmed={terms.grades} onConfirm={confirm} />
                </TabPanel>
                <TabPanel>
                  <ul className="text-sm">
                    {plan.leftOut.map((l) => (
                      <li key={l.exerciseId} className="py-0.5">
                        <b>{t(p.find(l.exerciseId)?.name ?? '')}.</b> <span className="text-soft">{t(l.because)}</span>
                      </li>
                    ))}
                  </ul>
                </TabPanel>
                <TabPanel className="text-sm">
                  <Proposals items={items} practised={view.practised} p={p} onRung={climb} />
                </TabPanel>
                <TabPanel className="flex flex-col gap-2 text-sm">
                  {singer.goals && (
                    <p>
                      <b>{t('Goals:')}</b> {singer.goals}
                    </p>
                  )}
                  {plan.notes.map((n) => (
                    <p key={t(n)}>{t(n)}</p>
                  ))}
                  <p className="font-semibold">{assigned.length ? t('Assigned before') : t('Nothing was assigned before.')}</p>
                  <ul>
                    {assigned.map((a) => (
                      <li key={a.id}>
                        <Link className="inline-flex min-h-9 items-center underline" href={`/assignments/${a.id}`}>
                          {t('{date}: {n} exercises', { date: dateOf(a.createdAt), n: a.items.length })}
                        </Link>
                      </li>
                    ))}
                  </ul>
                </TabPanel>
              </TabPanels>
            </TabGroup>
          </div>
        </div>
      </div>
    </DndContext>
  );
}

/** One of two ways to look ahead. */
function Ahead({ on, onClick, children }: { on: boolean; onClick: () => void; children: string }) {
  return (
    <button className={`button-small min-h-9 ${on ? 'border-accent text-accent' : ''}`} aria-pressed={on} onClick={onClick}>
      {children}
    </button>
  );
}

/** Another school than the singer's is looked at: what it changes, and whether to keep it. */
function SchoolTried({
  view,
  school,
  terms,
  items,
  p,
  onBack,
}: Props & {
  school: PlanSource['school'];
  terms: PlanSource['terms'];
  items: PlanItem[];
  p: Planning;
  onBack: () => void;
}) {
  const { rich, t } = useLanguage();
  const router = useRouter();
  const [problem, setProblem] = useState<Said | null>(null);
  const before = useMemo(
    () =>
      planFor({
        ...terms,
        map: view.map,
        ...ofSinger(view.singer),
        school: view.school,
        shelf: p.shelf,
        today: view.today,
      })?.items ?? [],
    [terms, view, p.shelf],
  );
  const keep = async () => {
    try {
      await ask('PUT /api/singers/[singerId]/plan', { params: { singerId: view.singer.id }, body: { school } });
      router.refresh();
    } catch (error) {
      setProblem(saidOf(error));
    }
  };
  return (
    <section aria-label={t('Another school')} className="rounded-lg border border-line bg-card p-3">
      <div className="flex flex-wrap items-center gap-2">
        <p className="min-w-0 flex-1">
          {rich(
            'As <b>{school}</b> would do it, against {own}. {holds}',
            { school: schoolById(school).name, own: schoolById(view.school).name, holds: schoolById(school).holds },
            { b: (inside) => <b>{inside}</b> },
          )}
        </p>
        <button className="button" onClick={onBack}>
          {t('Back')}
        </button>
        <ForCoaches>
          <button className="button-main" onClick={() => void keep()}>
            {t('Teach {name} this way', { name: view.singer.name })}
          </button>
        </ForCoaches>
      </div>
      {problem && <p role="alert">{t(problem)}</p>}
      <DifferenceList differences={compare(before, items)} before={before} after={items} name={(id) => p.find(id)?.name ?? ''} />
    </section>
  );
}

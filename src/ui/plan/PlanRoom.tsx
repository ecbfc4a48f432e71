'use client';
import { ArrowDown, ArrowUp, Plus, Undo2, X } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { exerciseById } from '../../core/exercise/shelf';
import type { VoiceMap } from '../../core/map/types';
import { noteName } from '../../core/music/pitch';
import { keyLadder } from '../../core/music/scale';
import { DAY_MINUTES, dayMinutes, setMinutes } from '../../core/plan/dose';
import type { Plan, PlanItem } from '../../core/plan/types';
import type { VoiceTypeId } from '../../core/plan/voice-types';
import { Notice } from '../kit/Notice';
import { sendJson } from '../kit/request';
import { dateOf, FINDING_WORDS } from '../kit/words';
import { useLadderScale } from '../ladder/useLadderScale';
import { KeysPicture } from './KeysPicture';

interface Props {
  view: {
    singer: { id: string; name: string; voiceType: VoiceTypeId };
    map: VoiceMap;
    plan: Plan | null;
    others: PlanItem[];
    assigned: { id: string; createdAt: Date; items: PlanItem[]; note: string }[];
  };
}

const HEIGHT = 420;
/** Keys offered, F#1 to F#6. */
const KEYS = Array.from({ length: 61 }, (_, k) => 30 + k);
const SMALL_SELECT = 'field min-h-9 w-full px-1 text-sm';

/** Choosing and assigning: the suggestion with its reasons, edited by the coach, against the voice. */
export function PlanRoom({ view: { singer, map, plan, others, assigned } }: Props) {
  const router = useRouter();
  const [items, setItems] = useState<PlanItem[]>(plan?.items ?? []);
  const [past, setPast] = useState<PlanItem[][]>([]);
  const [note, setNote] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const scale = useLadderScale(map, singer.voiceType, HEIGHT);

  const change = (next: PlanItem[]) => {
    setPast((p) => [...p, items]);
    setItems(next);
  };
  const edit = (index: number, part: Partial<PlanItem>) => change(items.map((it, i) => (i === index ? { ...it, ...part } : it)));
  const swap = (a: number, b: number) => {
    const next = [...items];
    [next[a], next[b]] = [next[b], next[a]];
    change(next);
  };

  const assign = async () => {
    setBusy(true);
    setProblem(null);
    try {
      const { id } = await sendJson<{ id: string }>('POST', '/api/assignments', { singerId: singer.id, note, items });
      router.push(`/assignments/${id}`);
    } catch (error) {
      setProblem((error as Error).message);
      setBusy(false);
    }
  };

  if (!plan)
    return (
      <div className="card max-w-2xl text-lg">
        <p>Exercises are chosen from the map, and there is none yet. Record a siren first.</p>
        <Link className="button-main mt-3" href={`/singers/${singer.id}/listen`}>
          Listen to {singer.name}
        </Link>
      </div>
    );
  const minutes = dayMinutes(items);
  const more = others.filter((o) => !items.some((it) => it.exerciseId === o.exerciseId));
  return (
    <div className="grid gap-4 lg:grid-cols-[1fr_30rem]">
      <section aria-label="The set against the voice" className="flex flex-col gap-3">
        <p className="text-lg">
          {plan.worksOn.length ? (
            <>
              Works on <b>{plan.worksOn.map((n) => FINDING_WORDS[n].toLowerCase()).join(' and ')}</b> around{' '}
              <b>{noteName(plan.anchors.change)}</b>
              {plan.changeMeasured ? '.' : ', where the change is expected: none was measured yet.'}
            </>
          ) : (
            <>Nothing stands out in the map yet: a plain set around {noteName(plan.anchors.change)}.</>
          )}
        </p>
        <KeysPicture scale={scale} map={map} items={items} />
        <label className="flex flex-col gap-1 text-sm text-soft">
          A word for {singer.name} (printed on the sheet)
          <textarea className="field min-h-20 py-2 text-base" value={note} maxLength={2000} onChange={(e) => setNote(e.target.value)} />
        </label>
        {assigned.length > 0 && (
          <div>
            <h2 className="font-bold">Assigned before</h2>
            <ul>
              {assigned.map((a) => (
                <li key={a.id}>
                  <Link className="inline-flex min-h-9 items-center underline" href={`/assignments/${a.id}`}>
                    {dateOf(a.createdAt)}: {a.items.length} exercises
                  </Link>
                </li>
              ))}
            </ul>
          </div>
        )}
      </section>

      <section aria-label="Exercises" className="flex flex-col gap-2">
        <div className="flex items-center gap-2">
          <p className={`flex-1 ${minutes > DAY_MINUTES ? 'font-bold' : 'text-soft'}`}>
            {setMinutes(items)} minutes a set, up to {minutes} a day
            {minutes > DAY_MINUTES ? `: more than the ${DAY_MINUTES} a beginner should do. Lower some counts.` : '.'}
          </p>
          <button
            className="button"
            disabled={past.length === 0}
            onClick={() => {
              setItems(past[past.length - 1]);
              setPast((p) => p.slice(0, -1));
            }}
          >
            <Undo2 aria-hidden size={18} /> Undo
          </button>
          <button className="button-main" onClick={() => void assign()} disabled={busy || items.length === 0}>
            Assign
          </button>
        </div>
        {problem && <Notice>{problem}</Notice>}
        <ol className="flex flex-col gap-2">
          {items.map((item, i) => (
            <ItemCard
              key={item.exerciseId}
              index={i}
              count={items.length}
              item={item}
              onEdit={(part) => edit(i, part)}
              onMove={(by) => swap(i, i + by)}
              onRemove={() => change(items.filter((_, j) => j !== i))}
            />
          ))}
        </ol>
        {more.length > 0 && (
          <details className="card">
            <summary className="cursor-pointer font-semibold">Add another exercise</summary>
            <ul className="mt-2 flex flex-col">
              {more.map((o) => (
                <li key={o.exerciseId}>
                  <button
                    className="flex min-h-11 w-full items-center gap-2 rounded-md px-2 text-left hover:bg-paper"
                    onClick={() => change([...items, o])}
                  >
                    <Plus aria-hidden size={18} className="text-accent" />
                    <b>{exerciseById(o.exerciseId).name}</b>
                    <span className="truncate text-sm text-soft">{exerciseById(o.exerciseId).purpose}</span>
                  </button>
                </li>
              ))}
            </ul>
          </details>
        )}
      </section>
    </div>
  );
}

function ItemCard({
  index,
  count,
  item,
  onEdit,
  onMove,
  onRemove,
}: {
  index: number;
  count: number;
  item: PlanItem;
  onEdit: (part: Partial<PlanItem>) => void;
  onMove: (by: 1 | -1) => void;
  onRemove: () => void;
}) {
  const exercise = exerciseById(item.exerciseId);
  const first = item.keys[0];
  const last = item.keys[item.keys.length - 1];
  return (
    <li className="card p-3" data-testid="item">
      <div className="flex items-center gap-1">
        <h3 className="flex-1 font-bold">
          {index + 1}. {exercise.name}
        </h3>
        <button className="button-small" aria-label={`${exercise.name}: earlier`} disabled={index === 0} onClick={() => onMove(-1)}>
          <ArrowUp aria-hidden size={16} />
        </button>
        <button className="button-small" aria-label={`${exercise.name}: later`} disabled={index === count - 1} onClick={() => onMove(1)}>
          <ArrowDown aria-hidden size={16} />
        </button>
        <button className="button-small" aria-label={`${exercise.name}: take out`} onClick={onRemove}>
          <X aria-hidden size={16} />
        </button>
      </div>
      <p className="text-sm">{item.reason}</p>
      <div className="mt-2 grid grid-cols-3 gap-2 text-sm text-soft sm:grid-cols-[1.5fr_1fr_1fr_1fr_1fr_1fr]">
        <label className="flex flex-col">
          Sound
          <select className={SMALL_SELECT} value={item.sound} onChange={(e) => onEdit({ sound: e.target.value })}>
            {[...new Set([...exercise.sounds, item.sound])].map((s) => (
              <option key={s}>{s}</option>
            ))}
          </select>
        </label>
        <KeyField label="First key" value={first} onChange={(key) => onEdit({ keys: keyLadder(key, last) })} />
        <KeyField label="Last key" value={last} onChange={(key) => onEdit({ keys: keyLadder(first, key) })} />
        <NumberField
          label="Tempo"
          value={item.tempo}
          min={exercise.tempo[0] - 20}
          max={exercise.tempo[2] + 20}
          step={2}
          onChange={(tempo) => onEdit({ tempo })}
        />
        <NumberField label="Minutes" value={item.minutes} min={0.5} max={5} step={0.5} onChange={(minutes) => onEdit({ minutes })} />
        <NumberField label="A day" value={item.timesADay} min={1} max={6} step={1} onChange={(timesADay) => onEdit({ timesADay })} />
      </div>
    </li>
  );
}

function KeyField({ label, value, onChange }: { label: string; value: number; onChange: (key: number) => void }) {
  return (
    <label className="flex flex-col">
      {label}
      <select className={SMALL_SELECT} value={value} onChange={(e) => onChange(Number(e.target.value))}>
        {KEYS.map((m) => (
          <option key={m} value={m}>
            {noteName(m)}
          </option>
        ))}
      </select>
    </label>
  );
}

function NumberField({
  label,
  value,
  min,
  max,
  step,
  onChange,
}: {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  onChange: (value: number) => void;
}) {
  return (
    <label className="flex flex-col">
      {label}
      <input
        className="field min-h-9 w-full px-2 text-sm"
        type="number"
        value={value}
        min={min}
        max={max}
        step={step}
        onChange={(e) => {
          const next = e.target.valueAsNumber;
          if (next >= min && next <= max) onChange(next);
        }}
      />
    </label>
  );
}

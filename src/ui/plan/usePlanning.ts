import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { SHELF } from '../../core/exercise/shelf';
import type { Exercise } from '../../core/exercise/types';
import type { SchoolId } from '../../core/map/schools';
import type { VoiceMap } from '../../core/map/types';
import { Edits, editsOf, withEdits } from '../../core/plan/edits';
import { planFor, planFrom, planning } from '../../core/plan/plan';
import type { Terms } from '../../core/plan/request';
import { conflicts } from '../../core/plan/check';
import type { Age } from '../../core/plan/ages';
import type { IntakeAnswers } from '../../core/plan/intake';
import type { Today } from '../../core/plan/safety';
import type { PlanItem, PlanRequest } from '../../core/plan/types';
import type { VoiceTypeId } from '../../core/plan/voice-types';
import { useMayChange } from '../kit/may-change';
import { say, wordsUnder } from '../../sync/words';
import { addressOf, requestOf } from '../../sync/ask';

export interface PlanSource {
  singer: { id: string; voiceType: VoiceTypeId; minor: boolean; age?: Age; changing: boolean; intake?: IntakeAnswers };
  map: VoiceMap;
  school: SchoolId;
  today: Today | null;
  terms: Terms;
  edits: Edits | null;
  own: Exercise[];
}

/** What a plan asks of a singer. */
export const ofSinger = ({ voiceType, minor, age, changing, intake }: PlanSource['singer']) => ({
  voiceType,
  minor,
  age,
  changing,
  intake,
});

interface State {
  terms: Terms;
  items: PlanItem[];
}

/** Changes are sent when the hand has rested this long. */
const REST_MS = 600;

/**
 * The plan being made: worked out from the map and the terms whenever these change, with the coach's edits kept on top; undo and
 * redo; conflicts at once; terms and edits are saved as they are made.
 */
export function usePlanning(source: PlanSource, school: SchoolId) {
  const { singer, map, today, own } = source;
  const mayChange = useMayChange();
  const path = addressOf('PUT /api/singers/[singerId]/plan', { singerId: singer.id });
  const shelf = useMemo(() => [...SHELF, ...own], [own]);
  const request = useCallback(
    (terms: Terms): PlanRequest => ({ ...terms, ...ofSinger(singer), map, school, shelf, today }),
    [map, singer, school, shelf, today],
  );
  const suggest = useCallback((terms: Terms) => planFor(request(terms))?.items ?? [], [request]);

  const begin = (terms: Terms, edits: Edits | null): State => {
    const first = suggest(terms);
    return { terms, items: edits ? withEdits(first, edits) : first };
  };
  const [state, setState] = useState<State>(() => begin(source.terms, source.edits));
  const [past, setPast] = useState<State[]>([]);
  const [future, setFuture] = useState<State[]>([]);

  const p = useMemo(() => planning(request(state.terms)), [request, state.terms]);
  const plan = useMemo(() => p && planFrom(p), [p]);

  // Another school looked at: its suggestion, with the same edits.
  const shownSchool = useRef(school);
  const suggestion = useRef(plan?.items ?? []);
  useEffect(() => {
    if (shownSchool.current === school) {
      suggestion.current = plan?.items ?? [];
      return;
    }
    const edits = editsOf(suggestion.current, state.items);
    shownSchool.current = school;
    suggestion.current = plan?.items ?? [];
    setState((s) => ({ ...s, items: withEdits(plan?.items ?? [], edits) }));
  }, [school, plan, state.items]);

  // Until a hand is laid on it here: what was made before a reload and isn't with the server yet, or what the server has by now.
  const untouched = past.length + future.length === 0;
  const given = JSON.stringify([source.terms, source.edits]);
  const shown = useRef(given);
  useEffect(() => {
    const own = wordsUnder(path)[0]?.body as { terms: Terms; edits: Edits } | undefined;
    if (!untouched || (!own && shown.current === given)) return;
    shown.current = given;
    const { terms, edits } = own ?? source;
    setState(begin(terms, edits));
    // Only when what is given has changed.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [given]);
  const save = ({ terms, items }: State) => {
    // Whoever may only look may try things out; none of it is kept.
    if (mayChange)
      say(
        requestOf('PUT /api/singers/[singerId]/plan', {
          params: { singerId: singer.id },
          body: { terms, edits: editsOf(suggest(terms), items) },
        }),
        REST_MS,
      );
  };

  const to = (next: State) => {
    setPast((all) => [...all, state]);
    setFuture([]);
    setState(next);
    save(next);
  };
  const step = (from: State[], setFrom: typeof setPast, setTo: typeof setPast) => {
    const next = from[from.length - 1];
    if (!next) return;
    setFrom(from.slice(0, -1));
    setTo((all) => [...all, state]);
    setState(next);
    save(next);
  };

  return {
    ...state,
    plan,
    p,
    request: useMemo(() => request(state.terms), [request, state.terms]),
    conflicts: useMemo(() => (p ? conflicts(state.items, p) : []), [p, state.items]),
    setItems: (items: PlanItem[]) => to({ ...state, items }),
    /** Other terms: worked out anew, with the coach's edits kept. */
    setTerms: (terms: Terms) => to({ terms, items: withEdits(suggest(terms), editsOf(suggest(state.terms), state.items)) }),
    toSuggestion: () => to({ ...state, items: suggest(state.terms) }),
    edited: useMemo(() => JSON.stringify(state.items) !== JSON.stringify(plan?.items ?? []), [state.items, plan]),
    undo: past.length > 0 ? () => step(past, setPast, setFuture) : null,
    redo: future.length > 0 ? () => step(future, setFuture, setPast) : null,
  };
}

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { SHELF } from '../../core/exercise/shelf';
import type { Exercise } from '../../core/exercise/types';
import type { SchoolId } from '../../core/map/schools';
import type { VoiceMap } from '../../core/map/types';
import { Edits, editsOf, withEdits } from '../../core/plan/edits';
import { planFor, planning } from '../../core/plan/plan';
import type { Terms } from '../../core/plan/request';
import { conflicts } from '../../core/plan/check';
import type { Today } from '../../core/plan/safety';
import type { PlanItem, PlanRequest } from '../../core/plan/types';
import type { VoiceTypeId } from '../../core/plan/voice-types';
import { useMayChange } from '../kit/may-change';
import { sendJson } from '../kit/request';

export interface PlanSource {
  singer: { id: string; voiceType: VoiceTypeId; minor: boolean };
  map: VoiceMap;
  school: SchoolId;
  today: Today | null;
  terms: Terms;
  edits: Edits | null;
  own: Exercise[];
}

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
  const shelf = useMemo(() => [...SHELF, ...own], [own]);
  const request = useCallback(
    (terms: Terms): PlanRequest => ({ ...terms, map, voiceType: singer.voiceType, school, shelf, minor: singer.minor, today }),
    [map, singer.voiceType, singer.minor, school, shelf, today],
  );
  const suggest = useCallback((terms: Terms) => planFor(request(terms))?.items ?? [], [request]);

  const [state, setState] = useState<State>(() => {
    const first = suggest(source.terms);
    return { terms: source.terms, items: source.edits ? withEdits(first, source.edits) : first };
  });
  const [past, setPast] = useState<State[]>([]);
  const [future, setFuture] = useState<State[]>([]);
  const [problem, setProblem] = useState<string | null>(null);

  const plan = useMemo(() => planFor(request(state.terms)), [request, state.terms]);
  const p = useMemo(() => planning(request(state.terms)), [request, state.terms]);

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

  const resting = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const save = useCallback(
    ({ terms, items }: State) => {
      clearTimeout(resting.current);
      // Whoever may only look may try things out; none of it is kept.
      if (!mayChange) return;
      resting.current = setTimeout(() => {
        const edits = editsOf(suggest(terms), items);
        sendJson('PUT', `/api/singers/${singer.id}/plan`, { terms, edits }).then(
          () => setProblem(null),
          (error: Error) => setProblem(`The plan isn’t saved yet. ${error.message}`),
        );
      }, REST_MS);
    },
    [mayChange, singer.id, suggest],
  );

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
    problem,
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

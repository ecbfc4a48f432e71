import { useCallback, useSyncExternalStore } from 'react';

const watchers = new Set<() => void>();
const watch = (watcher: () => void) => {
  watchers.add(watcher);
  return () => watchers.delete(watcher);
};

/** A choice that this device remembers. The fallback shows until one is made (and on the server). */
export function useStored<T extends string>(key: string, fallback: T): [T, (value: T) => void] {
  const value = useSyncExternalStore(
    watch,
    () => (localStorage.getItem(key) as T | null) ?? fallback,
    () => fallback,
  );
  const set = useCallback(
    (next: T) => {
      localStorage.setItem(key, next);
      watchers.forEach((w) => w());
    },
    [key],
  );
  return [value, set];
}

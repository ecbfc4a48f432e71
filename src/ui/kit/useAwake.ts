import { useEffect } from 'react';

/** Keep the screen on while something goes on without a hand; where the browser can't, it goes out as it always does. */
export function useAwake(on: boolean): void {
  useEffect(() => {
    if (!on || !('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    let over = false;
    const hold = () =>
      void navigator.wakeLock.request('screen').then(
        (given) => (over ? void given.release() : (lock = given)),
        () => {},
      );
    // The browser lets go of it when the page is hidden.
    const again = () => document.visibilityState === 'visible' && hold();
    hold();
    document.addEventListener('visibilitychange', again);
    return () => {
      over = true;
      document.removeEventListener('visibilitychange', again);
      void lock?.release();
    };
  }, [on]);
}

// What earlier versions kept elsewhere in this browser, said anew so that nothing of it is lost; can go when nobody has version 0.1.0.
import { openDB } from 'idb';
import type { Course } from '../core/lesson/types';
import type { Entry } from '../core/practice/types';
import { sayLine } from './practice';

/** Lines of practice that waited in a database of their own. */
export async function adoptLines(token: string): Promise<void> {
  const NAME = 'wendel-practice';
  if (!(await indexedDB.databases()).some(({ name }) => name === NAME)) return;
  const db = await openDB(NAME, 1);
  if (db.objectStoreNames.contains('entries')) {
    const lines = (await db.getAll('entries')) as (Entry & { token: string })[];
    for (const { token: whose, ...line } of lines.sort((a, b) => a.at.localeCompare(b.at)))
      if (whose === token) {
        sayLine(token, line);
        await db.delete('entries', line.id);
      }
  }
  db.close();
}

/** Where a lesson stood when the server was away. */
export function adoptCourse(lessonId: string): Course | null {
  const key = `wendel-lesson-${lessonId}`;
  try {
    const course = JSON.parse(localStorage.getItem(key) ?? 'null') as Course | null;
    localStorage.removeItem(key);
    return course;
  } catch {
    return null;
  }
}

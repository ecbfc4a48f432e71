// Keeps the parts of a running Wendel alive: what dies is started again, unless it dies again and again.
import { say } from './project.mjs';
import { stopPart } from './run.mjs';

export const FIRST_PAUSE_MS = 200;
const LONGEST_PAUSE_MS = 5000;
const LOOK_EVERY_MS = 500;
/** So many deaths within this time are no accident. */
const MOST_DEATHS = 6;
const WITHIN_MS = 60_000;

const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** Counts what dies: told of each death, it says whether there are too many of them within a minute. */
export function countDeaths() {
  let deaths = [];
  return () => {
    const now = Date.now();
    deaths = [...deaths.filter((death) => now - death < WITHIN_MS), now];
    return deaths.length >= MOST_DEATHS;
  };
}

/** Start each part ({ name, start }) and start it again when it ends; `onChange` hears the processes that run. */
export function supervise(wanted, onChange) {
  const running = new Map();
  let stopping = false;
  let fail;
  const failed = new Promise((_, reject) => (fail = reject));
  failed.catch(() => {});

  const tell = () => onChange([...running.values()]);
  const run = async ({ name, start }) => {
    const tooMany = countDeaths();
    let wait = FIRST_PAUSE_MS;
    while (!stopping) {
      const child = start();
      running.set(name, child);
      tell();
      await child.done;
      if (stopping) return;
      if (tooMany()) return fail(new Error(`${name} stopped ${MOST_DEATHS} times within a minute: see the messages above.`));
      say(`${name} stopped by itself; starting it again. What was being done is done again; nothing is lost.`);
      await pause(wait);
      wait = Math.min(LONGEST_PAUSE_MS, 2 * wait);
    }
  };
  for (const part of wanted) void run(part);
  return {
    failed,
    processes: () => [...running.values()],
    async stop() {
      stopping = true;
      await Promise.all([...running.values()].map(stopPart));
    },
  };
}

/** Look after the database server: start it again where it has gone. Returns what ends the looking. */
export function watchDatabase(server) {
  if (!server.alive) return () => {};
  let busy = false;
  const timer = setInterval(() => {
    if (busy || server.alive()) return;
    busy = true;
    say('The database stopped by itself; starting it again. What was stored is stored; what was on its way is sent again.');
    try {
      server.begin();
    } catch (error) {
      say(`${error.message}\nIt is tried again.`);
    }
    busy = false;
  }, LOOK_EVERY_MS);
  return () => clearInterval(timer);
}

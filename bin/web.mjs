#!/usr/bin/env node
// Several web processes on one port, for a machine with several cores: connections are handed round among them (Node's cluster).
// Started by npm start where WENDEL_WEB_PROCESSES is over 1; takes how many, then what one web process is started with.
import cluster from 'node:cluster';
import { nextBin } from './lib/build.mjs';

const PAUSE_MS = 200;
/** So many deaths within this time are no accident: all end, and whoever started them decides. */
const MOST_DEATHS = 6;
const WITHIN_MS = 60_000;

const [count, ...args] = process.argv.slice(2);
let deaths = [];
cluster.setupPrimary({ exec: nextBin, args });
for (let i = 0; i < Number(count); i++) cluster.fork();
cluster.on('exit', () => {
  const now = Date.now();
  deaths = [...deaths.filter((death) => now - death < WITHIN_MS), now];
  if (deaths.length >= MOST_DEATHS) process.exit(1);
  setTimeout(() => cluster.fork(), PAUSE_MS);
});

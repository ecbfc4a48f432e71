#!/usr/bin/env node
// Several web processes on one port, for a machine with several cores: connections are handed round among them (Node's cluster).
// Started by npm start where WENDEL_WEB_PROCESSES is over 1; takes how many, then what one web process is started with.
import cluster from 'node:cluster';
import { nextBin } from './lib/build.mjs';
import { countDeaths, FIRST_PAUSE_MS } from './lib/supervise.mjs';

const [count, ...args] = process.argv.slice(2);
const tooMany = countDeaths();
cluster.setupPrimary({ exec: nextBin, args });
for (let i = 0; i < Number(count); i++) cluster.fork();
cluster.on('exit', () => {
  // All end, and whoever started them decides.
  if (tooMany()) process.exit(1);
  setTimeout(() => cluster.fork(), FIRST_PAUSE_MS);
});

#!/usr/bin/env node
// npm run restore -- FILE: puts a backup in the place of what is there, also one of an earlier version. Stop Wendel first.
import { ensurePackages } from './lib/packages.mjs';
import { checkNode, command, say } from './lib/project.mjs';

command(async () => {
  checkNode();
  ensurePackages();
  const { restore } = await import('./lib/backup.mjs');
  const { dataFolder } = await import('./lib/postgres.mjs');
  const { ensurePrograms, ensureServerCommand } = await import('./lib/build.mjs');
  const { runProgram } = await import('./lib/run.mjs');
  const [file] = process.argv.slice(2);
  if (!file) throw new Error('Say which backup: npm run restore -- FILE');
  const { migrate } = await ensurePrograms();
  const sound = await ensureServerCommand('sound');
  const urlsOf = ({ ownerUrl, appUrl }) => ({ WENDEL_OWNER_URL: ownerUrl, WENDEL_APP_URL: appUrl });
  const steps = {
    migrate: (server) => runProgram(migrate, urlsOf(server)),
    loadSound: (server, path) => runProgram(sound, urlsOf(server), ['load', path]),
  };
  await restore(dataFolder(), file, steps, process.env.WENDEL_BACKUP_PASSWORD);
  say('Restored. npm start serves it.');
});

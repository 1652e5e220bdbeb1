import { Worker } from 'node:worker_threads';
import { compileForOneRun } from '@tersum/threads';

// How a thread compiles its code is settled when it begins: so the command has one that begins after that was said.
compileForOneRun();
new Worker(new URL('./main.js', import.meta.url), { argv: process.argv.slice(2) })
  .on('error', (error) => {
    process.stderr.write(`tersum: ${error instanceof Error ? error.message : String(error)}\n`);
    process.exitCode = 1;
  })
  .on('exit', (code) => {
    process.exitCode ||= code;
  });

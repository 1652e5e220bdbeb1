import type { ChildProcess } from 'node:child_process';
import { spawn } from 'node:child_process';
import { cp, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Names the folder that was seeded for all tests. */
const SEEDED = 'TERSUM_SEEDED';
const root = join(import.meta.dirname, '..');

/** The built server in a process of its own, on a data folder that outlives it. */
export class RunningServer {
  private process: ChildProcess | null = null;
  url = '';

  private constructor(
    private readonly data: string,
    private readonly more: readonly string[],
  ) {}

  /**
   * On an empty data folder, or one that is seeded already; its threads begin with the first task, as they are.
   * @param more arguments, such as --no-demo
   */
  static begin(...more: string[]): Promise<RunningServer> {
    return RunningServer.beginWarm('--cold', ...more);
  }

  /** Begins as people do: when a page is asked for, the threads are warmed up. */
  static async beginWarm(...more: string[]): Promise<RunningServer> {
    const data = await mkdtemp(join(tmpdir(), 'tersum-'));
    const seeded = process.env[SEEDED];
    if (seeded && !more.includes('--no-demo')) await cp(seeded, data, { recursive: true });
    const server = new RunningServer(data, more);
    await server.start();
    return server;
  }

  /** Seeds a folder with the demo, which the servers to come begin with. @returns how to take it away */
  static async seed(): Promise<() => Promise<void>> {
    const server = await RunningServer.begin();
    await server.stop();
    process.env[SEEDED] = server.data;
    return () => rm(server.data, { recursive: true, force: true });
  }

  start(): Promise<void> {
    const port = this.url ? new URL(this.url).port : '0';
    const child = spawn(
      process.execPath,
      [
        join(root, 'dist/server/main.js'),
        '--port',
        port,
        '--data',
        this.data,
        '--pages',
        join(root, 'dist/web'),
        ...this.more,
      ],
      { stdio: ['ignore', 'pipe', 'inherit'] },
    );
    this.process = child;
    return new Promise((resolve, reject) => {
      child.stdout.on('data', (text: Buffer) => {
        const address = /http:\/\/\S+/.exec(text.toString());
        if (!address) return;
        this.url = address[0];
        resolve();
      });
      child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
    });
  }

  /** Ends the process at once, as a power cut would. */
  kill(): Promise<void> {
    return this.end('SIGKILL');
  }

  stop(): Promise<void> {
    return this.end('SIGTERM');
  }

  async dispose(): Promise<void> {
    await this.stop();
    await rm(this.data, { recursive: true, force: true });
  }

  private end(signal: 'SIGKILL' | 'SIGTERM'): Promise<void> {
    const child = this.process;
    this.process = null;
    if (!child || child.exitCode !== null) return Promise.resolve();
    child.removeAllListeners('exit');
    return new Promise((resolve) => {
      child.once('exit', () => resolve());
      child.kill(signal);
    });
  }
}

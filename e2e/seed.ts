import { RunningServer } from './server.js';

/** Before all tests: the demo's pictures are taken in once, not by every server again. */
export default function seed(): Promise<() => Promise<void>> {
  return RunningServer.seed();
}

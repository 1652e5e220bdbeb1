import { bundle } from './bundle.mjs';

/** Before the server's tests: their threads' code is bundled once, not read source by source by every thread of every test. */
export default () => bundle({ worker: 'packages/server/src/pool/worker.ts' }, '.cache/tests');

import { benchFillInApp } from './fill-app.js';
import { benchFill } from './fill.js';
import { benchIntake } from './intake.js';
import { benchPrint } from './print.js';
import { benchProof } from './proof.js';
import { benchProofSpeed } from './proof-speed.js';
import { benchRepair } from './repair.js';
import { benchSliders } from './sliders.js';
import { benchSurvey } from './survey.js';
import { benchViewport } from './viewport.js';
import { benchWiden } from './widen.js';

const GROUPS: Record<string, () => Promise<void>> = {
  fill: benchFill,
  print: async () => {
    await benchPrint();
    await benchIntake();
    await benchSliders();
  },
  proof: async () => {
    await benchProof();
    await benchProofSpeed();
  },
  repair: async () => {
    await benchRepair();
    await benchFillInApp();
  },
  survey: benchSurvey,
  viewport: benchViewport,
  widen: benchWiden,
};

// npm run bench [-- GROUP ...]: prints figures and ratios; asserts nothing.
const wanted = process.argv.slice(2);
for (const name of wanted.length ? wanted : Object.keys(GROUPS)) {
  const group = GROUPS[name];
  if (!group) {
    console.error(`There is no group '${name}'. Groups: ${Object.keys(GROUPS).join(', ')}`);
    process.exit(2);
  }
  console.log(`\n== ${name}`);
  await group();
}

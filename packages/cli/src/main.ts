import { isUserProblem } from '@tersum/codec';
import { fillCommand } from './fill.js';
import { cloneCommand, graftCommand } from './copy.js';
import { findCommand } from './find.js';
import { joinCommand } from './join.js';
import { levelCommand } from './level.js';
import { mendCommand } from './mend.js';
import { proofCommand } from './proof.js';
import { renderCommand } from './render.js';
import { splitCommand } from './split.js';
import { straightenCommand } from './straighten.js';
import { unglareCommand } from './unglare.js';
import { BadUsage } from './usage.js';
import { widenCommand } from './widen.js';

/** What a thread of a survey runs; beside this file in the bundle. */
const STUDY = new URL('./study.js', import.meta.url);

const COMMANDS: Record<string, (args: string[]) => Promise<void>> = {
  fill: fillCommand,
  clone: cloneCommand,
  graft: graftCommand,
  find: (args) => findCommand(args, STUDY),
  mend: (args) => mendCommand(args, STUDY),
  widen: widenCommand,
  join: joinCommand,
  split: splitCommand,
  straighten: straightenCommand,
  level: levelCommand,
  unglare: unglareCommand,
  proof: proofCommand,
  render: renderCommand,
};

const HELP = `tersum COMMAND IN ... --out OUT [--json FILE]

  fill IN --mask M --out OUT [--variants K] [--donors M2] [--avoid M3] [--turn MAXDEG] [--mirror]
        [--scale MINPCT-MAXPCT] [--adapt 0..1] [--seed N] [--threads N]
        K > 1: OUT gets -1 .. -K before its extension, best first
  graft IN --mask M --donor DX,DY|auto [--turn DEG] [--mirror x|y] [--scale PCT]
        [--strength 0..1] [--softness 0..1] --out OUT
        0,0 brings what was pasted in the mask into its surroundings' tone; auto finds a donor for every part
  clone ...as graft...
  find IN [--kinds specks,lines,creases,losses,stains,ink,wires,mesh,pulls] [--sensitivity 0..1]
        [--out-mask MASK] [--threads N] --json FILE
        the findings with their measures and advice; MASK is their union
  mend IN --out OUT [--policy documentary|picture] [--layers OUT.ora] [--kinds ...] [--sensitivity 0..1]
        [--seed N] [--threads N]
        finds, advises, mends; documentary leaves what stood before the camera. Stains are reported and left
  widen IN --left N --right N --top N --bottom N --how fill|stretch [--protect M] --out OUT [--json FILE]
        more background on the sides: filled, or stretched with what is protected (else the subject found) left alone
  join FRAME... --out OUT [--projection auto|plane|cylinder] [--fill] [--json FILE]
        overlapping frames in any order as one picture; --fill fills its ragged edges
  split BED --out-dir DIR [--json FILE]
        every print on a scanner's bed, straightened, in reading order
  straighten IN --out OUT [--angle DEG] [--json FILE]
        turned back by the tilt of its level and plumb lines; DEG is counter-clockwise
  level IN --out OUT [--auto] [--clip PCT] [--channel auto|r|g|b|all]
        black and white points; --auto undoes fading and uneven light
  unglare SHOT... --out OUT [--json FILE]
        one print photographed two to five times with the light elsewhere; in the first shot's frame
  proof BEFORE AFTER [--mask M] --json FILE
        what gives the repairs away: seams, steps of tone, softness, grain, repeats, broken lines, leftovers, pulls
  render JOB.zip --out OUT [--json FILE]
        a delivered job, rendered again to the same samples
`;

/** Runs one command. @returns the exit code: 0 done, 2 bad usage or input, 1 anything else */
async function main([name, ...rest]: string[]): Promise<number> {
  if (!name || name === 'help' || name === '--help') {
    process.stdout.write(HELP);
    return name ? 0 : 2;
  }
  try {
    const command = COMMANDS[name];
    if (!command) throw new BadUsage(`there is no command '${name}'; see 'tersum help'`);
    await command(rest);
    return 0;
  } catch (error) {
    if (error instanceof BadUsage || isUserProblem(error)) {
      process.stderr.write(`tersum: ${error.message}\n`);
      return 2;
    }
    process.stderr.write(`tersum: ${error instanceof Error ? error.message : String(error)}\n`);
    return 1;
  }
}

process.exitCode = await main(process.argv.slice(2));

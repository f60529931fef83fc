import { WrongInputError } from '../core/model/faults';
import { Command, CommanderError, InvalidArgumentError, Option } from 'commander';
import { version } from '../../package.json';
import { BACKGROUNDS, PHOTO_MEASURES } from '../core/model/study/catalogues';
import type { PhotoFlags } from './photo';

const DONE = 0;
const WRONG_INPUT = 1;
const WRONG_USAGE = 2;

function share(text: string): number {
  const value = Number(text);
  if (!(value > 0 && value < 1)) throw new InvalidArgumentError('it must be between 0 and 1');
  return value;
}

function wholeNumber(text: string): number {
  if (!/^\d{1,15}$/.test(text)) throw new InvalidArgumentError('it must be a whole number');
  return Number(text);
}

function plainNumber(text: string): number {
  if (!/^[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?$/.test(text)) {
    throw new InvalidArgumentError('it must be a number');
  }
  return Number(text);
}

function pixelRegion(text: string): { x: number; y: number; w: number; h: number } {
  const parts = text.split(',');
  if (parts.length !== 4 || parts.some((part) => !/^-?\d{1,9}$/.test(part.trim()))) {
    throw new InvalidArgumentError('it must be four whole numbers of pixels: x,y,w,h');
  }
  const [x = 0, y = 0, w = 0, h = 0] = parts.map(Number);
  return { x, y, w, h };
}

/** The commands. Each loads what it needs when it is run: asking for help loads nothing. */
function buildProgram(): Command {
  const program = new Command('vergleich')
    .description('Compare desktop 3D printers by evidence')
    .version(version)
    .exitOverride()
    .configureHelp({ showGlobalOptions: true });
  addPackageCommands(program);
  addFileCommands(program);
  addDatabaseCommands(program);
  return program;
}

/** Commands that read study packages and reports. */
function addPackageCommands(program: Command): void {
  program
    .command('evaluate')
    .description('print the results of a study package')
    .argument('<study>', 'folder or zip of the study package')
    .option('--json', 'print one JSON object and nothing else')
    .option('--alpha <share>', 'error probability; intervals are 1 − alpha', share)
    .option('--seed <number>', 'seed of everything that is drawn', wholeNumber)
    .option('--card <name>', 'fill in the scorecard of this name')
    .option('--reach', 'read the sliced files to their ends too: claim, command and reach')
    .option('--all', 'name each warning, in place of once for those of one kind')
    .action(async (study: string, flags: object) =>
      (await import('./evaluate')).runEvaluate(study, flags),
    );
  program
    .command('validate')
    .description('check a study package and name every fault')
    .argument('<study>', 'folder or zip of the study package')
    .option('--all', 'name each warning, in place of once for those of one kind')
    .action(async (study: string, flags: object) =>
      (await import('./validate')).runValidate(study, flags),
    );
  program
    .command('standings')
    .description('compare all machines that printed an artefact, over several study packages')
    .argument('<studies...>', 'folders or zips of study packages')
    .option('--artefact <id>', 'only this artefact, by its id in one of the studies')
    .option('--all', 'name each warning, in place of once for those of one kind')
    .option('--json', 'print one JSON object and nothing else')
    .option('--alpha <share>', 'error probability; intervals are 1 − alpha', share)
    .action(async (studies: string[], flags: object) =>
      (await import('./standings')).runStandings(studies, flags),
    );
  program
    .command('verify')
    .description('recompute the data of a published report and compare every figure in it')
    .argument('<report>', 'zip or folder of the report')
    .action(async (report: string) => (await import('./verify')).runVerify(report));
}

/** Commands that read a single file: sliced, mesh, photo. */
function addFileCommands(program: Command): void {
  program
    .command('toolpath')
    .description('print what sliced files ask for, what can be reached, and what they differ in')
    .argument('<files...>', 'sliced files, plain, gzip or in a container')
    .option('--json', 'print one JSON object and nothing else')
    .option('--machine <file>', 'JSON with the limits and the claim of the machine')
    .action(async (files: string[], flags: object) =>
      (await import('./toolpath')).runToolpath(files, flags),
    );
  program
    .command('mesh')
    .description('print what a mesh is: size, volume, area, whether it is closed, its identity')
    .argument('<file>', 'STL, OBJ or 3MF')
    .option('--json', 'print one JSON object and nothing else')
    .action(async (file: string, flags: object) => (await import('./mesh')).runMesh(file, flags));
  program
    .command('photo')
    .description('measure a region of a photo: layer lines, ringing, strings, gaps, texture')
    .argument('<file>', 'PNG, JPEG or WebP')
    .addOption(
      new Option('--measure <kind>', 'what is measured')
        .choices(PHOTO_MEASURES)
        .makeOptionMandatory(),
    )
    .requiredOption('--region <x,y,w,h>', 'whole pixels of the picture as seen', pixelRegion)
    .requiredOption('--px-per-mm <scale>', 'pixels a millimetre', plainNumber)
    .option('--layer-height <mm>', 'height of the layers', plainNumber)
    .option('--speed <mm/s>', 'speed of the wall, for ringing in hertz', plainNumber)
    .addOption(
      new Option('--background <kind>', 'what the part was taken against').choices(BACKGROUNDS),
    )
    .option('--json', 'print one JSON object and nothing else')
    .action(async (file: string, flags: PhotoFlags) =>
      (await import('./photo')).runPhoto(file, flags),
    );
}

/** Commands that open the database in DATABASE_URL. */
function addDatabaseCommands(program: Command): void {
  program
    .command('backup')
    .description('save a snapshot of the database in DATABASE_URL to a file')
    .requiredOption('--to <file>', 'file to write; its checksums are written to <file>.json')
    .action(async ({ to }: { to: string }) => (await import('./backup')).runBackup(to));
  program
    .command('restore')
    .description('put a backup into the empty database in DATABASE_URL, and check it')
    .argument('<file>', 'file that backup wrote')
    .action(async (file: string) => (await import('./backup')).runRestore(file));
  program
    .command('check')
    .description(
      'check the database in DATABASE_URL: constraints, contents, that results can be made',
    )
    .action(async () => (await import('./check')).runCheck());
  program
    .command('owner-link')
    .description('print a link, good once, that makes an owner or gives one another password')
    .action(async () => (await import('./owner-link')).runOwnerLink());
  program
    .command('import')
    .description('put a study package into the database in DATABASE_URL')
    .argument('<study>', 'folder or zip of the study package')
    .option('--all', 'name each warning, in place of once for those of one kind')
    .action(async (study: string, flags: object) =>
      (await import('./import')).runImport(study, flags),
    );
  program
    .command('export')
    .description('write a study of the database in DATABASE_URL as a package')
    .argument('<study-id>', 'id of the study')
    .requiredOption('--to <file>', 'zip file to write')
    .action(async (id: string, { to }: { to: string }) =>
      (await import('./export')).runExport(id, to),
    );
}

/** Runs the command line; returns the exit code. */
export async function main(argv: readonly string[]): Promise<number> {
  try {
    await buildProgram().parseAsync([...argv], { from: 'user' });
    return DONE;
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? DONE : WRONG_USAGE;
    // A package that cannot be opened is known by its name: what throws it is loaded by its command.
    if (error instanceof WrongInputError) {
      process.stderr.write(`${error.message}\n`);
      return WRONG_INPUT;
    }
    throw error;
  }
}

import { readFileSync } from 'node:fs';
import { Command, CommanderError } from 'commander';
import type { ConvertOptions } from './convert.ts';
import type { JobsOptions } from './jobs.ts';
import type { OffsetOptions } from './offset.ts';
import type { PackOptions } from './pack.ts';
import type { PlanOptions } from './plan.ts';
import type { SendOptions } from './send.ts';
import type { SheetOptions } from './sheet.ts';
import type { TraceOptions } from './trace.ts';
import { Unusable } from './unusable.ts';

const { version } = JSON.parse(readFileSync(new URL('../package.json', import.meta.url), 'utf8'));

// Whoever reads our output may have had enough of it.
process.stdout.on('error', (error: NodeJS.ErrnoException) => process.exit(error.code === 'EPIPE' ? 0 : 2));

// What a command needs is loaded when it is asked for.
const program = new Command('lambent')
  .version(version, '--version', 'say which version it is')
  .description('Prepares drawings for laser cutting and engraving. A file named - is standard input or output.')
  .option('--json', 'say what goes wrong as JSON; with jobs and send, also what is answered')
  .exitOverride()
  .showSuggestionAfterError(false)
  .configureOutput({ outputError: (text) => sayWrong(text.trim().replace(/^error: /, '')) });

/** What the arrival card asks on the Bench. */
function withReadingOptions(command: Command): Command {
  return command
    .option('--page <number>', 'the page of a PDF, counted from 1')
    .option('--unit <unit>', 'what one unit of the file is: mm, cm, m, in, ft, or so many to the inch')
    .option('--width <length>', 'how wide the whole drawing is, such as 120mm or 4 3/4in')
    .option('--height <length>', 'how high the whole drawing is')
    .option('--dashes', 'take dashed strokes as their dashes, not as solid lines');
}

/** What a drawing is laid on, and burnt with. */
function withOpeningOptions(command: Command): Command {
  return withReadingOptions(command)
    .option('--machine <id>', 'the machine (default: the shop’s first)')
    .option('--key <id or file>', 'the colour key: one of the shop’s, or a key’s file (default: the shop’s first)')
    .option('--run <name>', 'which of a stored job’s runs (default: the first)')
    .option('--material <id>', 'the material of the sheet (default: the shop’s first)')
    .option('--thickness <length>', 'how thick the sheet is, as it was measured (default: as its material says)');
}

/** Where a run lands; places as the machine's display shows them. */
function withLandingOptions(command: Command): Command {
  return withOpeningOptions(command)
    .option('--at <words...>', 'where the run lands: head X,Y, mark X,Y or sheet, and which of its nine points does')
    .option('--marks <marks...>', 'two marks, each where it is drawn and where it was touched: X,Y=X,Y')
    .option('--scaled', 'with --marks: make the run as large as the marks are apart');
}

function withServerOptions(command: Command): Command {
  return command
    .option('--server <address>', 'where Lambent runs (default: LAMBENT_SERVER, or http://127.0.0.1:7450)')
    .option('--token <token>', 'what it asks for, where it asks for one (default: LAMBENT_TOKEN)');
}

withLandingOptions(program.command('plan'))
  .description('Works out what a machine would do with a drawing: layers, times, findings, program.')
  .argument('<file>', 'the drawing: SVG, DXF, PDF, STL or a picture; or a stored job, .json')
  .option('--shop <file>', 'the shop’s machines, keys and materials, as JSON (default: the demo shop)')
  .option('--kerf <length>', 'the width the beam takes away, for every cut layer')
  .option('--photo-width <length>', 'burn a picture by its greys, so wide')
  .option('--grain <grain>', 'how its greys are made: diffused, blue-noise, dots, lines, threshold or true-greys')
  .option('--spacing <length>', 'how far apart its lines are')
  .option('--out <file>', 'write the program here, as G-code')
  .option('--svg <file>', 'write what was understood here, as SVG')
  .option('--report <file>', 'write the report here, as JSON')
  .option('--force', 'write the program even when a finding blocks')
  .addHelpText('after', '\nExit status: 0 all is well; 1 a finding blocks; 2 the file or the words cannot be used.')
  .action(async (file: string, options: PlanOptions) => {
    const { plan } = await import('./plan.ts');
    process.exitCode = await plan(file, options);
  });

withLandingOptions(program.command('sheet'))
  .description('Writes the job sheet of a run as PDF: picture, places, steps, times, price and notes.')
  .argument('<file>', 'the drawing; or a stored job, .json')
  .argument('<out>', 'the PDF to write')
  .option('--shop <file>', 'the shop’s machines, keys, materials and prices, as JSON (default: the demo shop)')
  .option('--title <title>', 'what the job is called (default: the file’s name)')
  .action(async (file: string, to: string, options: SheetOptions) => {
    const { sheet } = await import('./sheet.ts');
    process.exitCode = await sheet(file, to, options);
  });

withReadingOptions(program.command('convert'))
  .description('Reads a drawing and writes it as SVG, DXF or PDF, going by the name it is to have.')
  .argument('<in>', 'the drawing: SVG, DXF, PDF, STL or a picture')
  .argument('<out>', 'the file to write: .svg, .dxf or .pdf')
  .option('--as <format>', 'svg, dxf or pdf, where the name does not say it')
  .action(async (from: string, to: string, options: ConvertOptions) => {
    const { convert } = await import('./convert.ts');
    process.exitCode = await convert(from, to, options);
  });

withReadingOptions(program.command('offset'))
  .description('Writes the outlines at a distance from those of a drawing.')
  .argument('<in>', 'the drawing: SVG, DXF, PDF, STL or a picture')
  .argument('<out>', 'the file to write: .svg, .dxf or .pdf')
  .requiredOption('--by <length>', 'how far, such as 2mm; inward where it is below 0')
  .option('--join <kind>', 'how corners go: round, miter or bevel', 'round')
  .option('--ignore-holes', 'fill holes first')
  .option('--select <stroke>', 'only outlines with a stroke of this colour')
  .option('--as <format>', 'svg, dxf or pdf, where the name does not say it')
  .action(async (from: string, to: string, options: OffsetOptions) => {
    const { offset } = await import('./offset.ts');
    process.exitCode = await offset(from, to, options);
  });

withReadingOptions(program.command('pack'))
  .description(
    'Lays the pieces of drawings on sheets with little waste: each outermost outline with all that lies in it.',
  )
  .argument('<in...>', 'the drawings: SVG, DXF, PDF or STL')
  .requiredOption('--sheet <size>', 'how large a sheet is, such as 600x400')
  .requiredOption('--out <file>', 'the file to write: .svg, .dxf or .pdf; several sheets go to OUT-1, OUT-2 …')
  .option('--gap <length>', 'how far pieces stay apart', '2')
  .option('--margin <length>', 'how far they stay from the edge of the sheet', '5')
  .option('--turn <how>', 'how they may be turned: free, 90, 180 or none', '90')
  .option('--mirror', 'they may be turned over')
  .option('--holes', 'small ones may lie in the holes of large ones')
  .option('--count <number>', 'how many of each; fit: as many as one sheet holds', '1')
  .option('--seconds <number>', 'how long to look for better ones', '20')
  .option('--seed <number>', 'what chance begins with', '1')
  .option('--report <file>', 'write every piece’s place and turn here, as JSON')
  .addHelpText('after', '\nExit status: 0 all is laid; 1 something did not fit; 2 a file or the words cannot be used.')
  .action(async (files: string[], options: PackOptions) => {
    const { pack } = await import('./pack.ts');
    process.exitCode = await pack(files, options);
  });

withReadingOptions(program.command('trace'))
  .description('Makes closed outlines of what a picture shows.')
  .argument('<in>', 'the picture: PNG, JPEG, WebP, GIF or BMP; or a drawing with pictures')
  .argument('<out>', 'the file to write: .svg, .dxf or .pdf')
  .option(
    '--threshold <level>',
    'what is darker is the figure: auto, local for paper that is lit unevenly, or a level from 0 to 255',
    'auto',
  )
  .option('--light', 'what is lighter is the figure')
  .option('--specks <mm²>', 'leave out figures and holes smaller than this', '0.1')
  .option('--tolerance <length>', 'how far outlines may stray from the edge', '0.03mm')
  .option('--outer', 'the outer outlines alone, without holes')
  .option('--middle-lines', 'single lines along the middle of strokes, each with the width of its stroke')
  .option('--colours <number>', 'areas side by side, each filled with its colour: up to so many, the ground apart')
  .option('--stroke <colour>', 'what outlines are drawn with (default: the house key’s cut)')
  .option('--as <format>', 'svg, dxf or pdf, where the name does not say it')
  .addHelpText('after', '\nExit status: 0 written; 1 there is no outline; 2 the file or the words cannot be used.')
  .action(async (from: string, to: string, options: TraceOptions) => {
    const { trace } = await import('./trace.ts');
    process.exitCode = await trace(from, to, options);
  });

program
  .command('build')
  .description('Makes the parts of a box and the like from numbers, and says whether they go together.')
  .argument('[what]', 'what to build: see --list')
  .argument('[words...]', 'its numbers: see --help after it')
  .option('--list', 'what can be built')
  .helpOption(false)
  .allowUnknownOption()
  .action(async (what: string | undefined, words: string[], options: { list?: boolean }) => {
    const { build, buildList } = await import('./build.ts');
    if (options.list || what === '--help') process.stdout.write(buildList());
    else process.exitCode = await build(what, words);
  });

withServerOptions(program.command('jobs'))
  .description('Lists the jobs on the Desk.')
  .action(async (_: unknown, command: Command) => {
    const { jobs } = await import('./jobs.ts');
    process.exitCode = await jobs(command.optsWithGlobals<JobsOptions>());
  });

withServerOptions(withOpeningOptions(program.command('send')))
  .description('Burns a drawing, or a job of the Desk, on a machine of the shop; a drawing is put on the Desk first.')
  .argument('<file or id>', 'the drawing; or a stored job, .json; or the id of a job on the Desk')
  .option('--title <title>', 'what the job is called (default: the file’s name)')
  .option('--again', 'burn a run that is on record as burnt')
  .option('--early', 'burn a run though the one that leaves its stock in place is not on record as burnt')
  .option('--wait', 'wait until it is burnt, and say how it ended')
  .addHelpText(
    'after',
    '\nExit status: 0 sent, or burnt; 1 a finding blocks, or the run did not end well; 2 what cannot be used.',
  )
  .action(async (what: string, _: unknown, command: Command) => {
    const { send } = await import('./send.ts');
    process.exitCode = await send(what, command.optsWithGlobals<SendOptions>());
  });

try {
  await program.parseAsync();
} catch (error) {
  if (error instanceof CommanderError) {
    process.exitCode = error.exitCode === 0 ? 0 : 2;
  } else if (error instanceof Unusable) {
    sayWrong(error.message);
    process.exitCode = 2;
  } else {
    throw error;
  }
}

/** Says what goes wrong: in a sentence, or as JSON where that is asked for. */
function sayWrong(message: string): void {
  const isJson = process.argv.includes('--json');
  process.stderr.write(isJson ? `${JSON.stringify({ error: { message } })}\n` : `lambent: ${message}\n`);
}

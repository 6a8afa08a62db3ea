import { Command, CommanderError } from 'commander';
import { type PlanOptions, plan } from './plan.ts';
import { Unusable } from './unusable.ts';

const program = new Command('lambent')
  .description('Prepares drawings for laser cutting and engraving.')
  .exitOverride()
  .showSuggestionAfterError(false)
  .configureOutput({ outputError: (text, write) => write(text.replace(/^error: /, 'lambent: ')) });

program
  .command('plan')
  .description('Works out what a machine would do with a drawing: layers, times, findings, program.')
  .argument('<file>', 'the drawing (SVG)')
  .option('--shop <file>', 'the shop’s machines, keys and materials, as JSON (default: the demo shop)')
  .option('--machine <id>', 'the machine (default: the shop’s first)')
  .option('--key <id>', 'the colour key (default: the shop’s first)')
  .option('--material <id>', 'the material of the sheet (default: the shop’s first)')
  .option('--out <file>', 'write the program here, as G-code')
  .option('--svg <file>', 'write what was understood here, as SVG')
  .option('--report <file>', 'write the report here, as JSON')
  .option('--force', 'write the program even when a finding blocks')
  .addHelpText('after', '\nExit status: 0 all is well; 1 a finding blocks; 2 the file or the words cannot be used.')
  .action(async (file: string, options: PlanOptions) => {
    process.exitCode = await plan(file, options);
  });

try {
  await program.parseAsync();
} catch (error) {
  if (error instanceof CommanderError) {
    process.exitCode = error.exitCode === 0 ? 0 : 2;
  } else if (error instanceof Unusable) {
    process.stderr.write(`lambent: ${error.message}\n`);
    process.exitCode = 2;
  } else {
    throw error;
  }
}

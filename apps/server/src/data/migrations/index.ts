import { BurntPictures1764600000000 } from './burnt-pictures.migration.ts';
import { Day1766100000000 } from './day.migration.ts';
import { Deeds1765800000000 } from './deeds.migration.ts';
import { Desk1765900000000 } from './desk.migration.ts';
import { FilesTables1764100000000 } from './files-tables.migration.ts';
import { FirstTables1764000000000 } from './first-tables.migration.ts';
import { JobRuns1764200000000 } from './job-runs.migration.ts';
import { KeptOffcuts1765600000000 } from './kept-offcuts.migration.ts';
import { MachineBeams1765300000000 } from './machine-beams.migration.ts';
import { MaterialFits1764400000000 } from './material-fits.migration.ts';
import { MaterialLeast1765000000000 } from './material-least.migration.ts';
import { MaterialLighter1765100000000 } from './material-lighter.migration.ts';
import { Messages1766400000000 } from './messages.migration.ts';
import { NewFiles1766500000000 } from './new-files.migration.ts';
import { NumberFamilies1765200000000 } from './number-families.migration.ts';
import { Owners1764900000000 } from './owners.migration.ts';
import { People1765700000000 } from './people.migration.ts';
import { Quotes1766200000000 } from './quotes.migration.ts';
import { RecipeKerf1764300000000 } from './recipe-kerf.migration.ts';
import { Reliability1764800000000 } from './reliability.migration.ts';
import { RunBasis1765400000000 } from './run-basis.migration.ts';
import { Sendings1766000000000 } from './sendings.migration.ts';
import { Sharing1766300000000 } from './sharing.migration.ts';
import { Stock1764700000000 } from './stock.migration.ts';
import { TheBook1764500000000 } from './the-book.migration.ts';
import { TimingCards1765500000000 } from './timing-cards.migration.ts';

/** Every form that the database has had, the first one first. */
export const migrations = [
  FirstTables1764000000000,
  FilesTables1764100000000,
  JobRuns1764200000000,
  RecipeKerf1764300000000,
  MaterialFits1764400000000,
  TheBook1764500000000,
  BurntPictures1764600000000,
  Stock1764700000000,
  Reliability1764800000000,
  Owners1764900000000,
  MaterialLeast1765000000000,
  MaterialLighter1765100000000,
  NumberFamilies1765200000000,
  MachineBeams1765300000000,
  RunBasis1765400000000,
  TimingCards1765500000000,
  KeptOffcuts1765600000000,
  People1765700000000,
  Deeds1765800000000,
  Desk1765900000000,
  Sendings1766000000000,
  Day1766100000000,
  Quotes1766200000000,
  Sharing1766300000000,
  Messages1766400000000,
  NewFiles1766500000000,
];

import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { TypeOrmModule } from '@nestjs/typeorm';
import { config } from '../config.ts';
import { BurntPictures1764600000000 } from './burnt-pictures.migration.ts';
import { entities } from './entities.ts';
import { FilesTables1764100000000 } from './files-tables.migration.ts';
import { FirstTables1764000000000 } from './first-tables.migration.ts';
import { JobRuns1764200000000 } from './job-runs.migration.ts';
import { MaterialFits1764400000000 } from './material-fits.migration.ts';
import { RecipeKerf1764300000000 } from './recipe-kerf.migration.ts';
import { Stock1764700000000 } from './stock.migration.ts';
import { TheBook1764500000000 } from './the-book.migration.ts';

/** One SQLite file in the data folder: write-ahead log, foreign keys on, brought up to date by migrations. */
export function databaseModule() {
  mkdirSync(config.dataFolder, { recursive: true });
  return TypeOrmModule.forRoot({
    type: 'better-sqlite3',
    database: join(config.dataFolder, 'lambent.sqlite'),
    enableWAL: true,
    prepareDatabase: (database: { pragma: (text: string) => void }) => {
      database.pragma('foreign_keys = ON');
      database.pragma('synchronous = FULL');
      database.pragma('busy_timeout = 5000');
    },
    entities,
    migrations: [
      FirstTables1764000000000,
      FilesTables1764100000000,
      JobRuns1764200000000,
      RecipeKerf1764300000000,
      MaterialFits1764400000000,
      TheBook1764500000000,
      BurntPictures1764600000000,
      Stock1764700000000,
    ],
    migrationsRun: true,
    synchronize: false,
  });
}

import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { DataModule } from '../data/data.module.ts';
import { JobEntity } from '../jobs/job.entities.ts';
import { RunEntity } from '../runs/run.entities.ts';
import { ThinningService } from './thinning.service.ts';

@Module({ imports: [TypeOrmModule.forFeature([JobEntity, RunEntity]), DataModule], providers: [ThinningService] })
export class ThinningModule {}

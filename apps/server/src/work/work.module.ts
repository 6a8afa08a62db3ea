import { Module } from '@nestjs/common';
import { DataModule } from '../data/data.module.ts';
import { WorkService } from './work.service.ts';

@Module({ imports: [DataModule], providers: [WorkService], exports: [WorkService] })
export class WorkModule {}

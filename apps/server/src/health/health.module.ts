import { Module } from '@nestjs/common';
import { DataModule } from '../data/data.module.ts';
import { HealthController } from './health.controller.ts';

@Module({ imports: [DataModule], controllers: [HealthController] })
export class HealthModule {}

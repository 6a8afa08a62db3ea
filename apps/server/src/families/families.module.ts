import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { DataModule } from '../data/data.module.ts';
import { FamiliesController } from './families.controller.ts';
import { FamiliesService } from './families.service.ts';
import { NumberFamilyEntity } from './number-family.entity.ts';

@Module({
  imports: [TypeOrmModule.forFeature([NumberFamilyEntity]), DataModule],
  controllers: [FamiliesController],
  providers: [FamiliesService],
})
export class FamiliesModule {}

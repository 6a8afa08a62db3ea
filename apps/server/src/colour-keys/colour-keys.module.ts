import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { DataModule } from '../data/data.module.ts';
import { ColourKeyEntity } from './colour-key.entity.ts';
import { ColourKeysController } from './colour-keys.controller.ts';
import { ColourKeysService } from './colour-keys.service.ts';

@Module({
  imports: [TypeOrmModule.forFeature([ColourKeyEntity]), DataModule],
  controllers: [ColourKeysController],
  providers: [ColourKeysService],
  exports: [ColourKeysService],
})
export class ColourKeysModule {}

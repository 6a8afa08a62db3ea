import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { DataModule } from '../data/data.module.ts';
import { WorkModule } from '../work/work.module.ts';
import { AssetsController } from './assets.controller.ts';
import { FontEntity, PictureEntity } from './file.entities.ts';
import { FontsController } from './fonts.controller.ts';
import { FontsService } from './fonts.service.ts';
import { PicturesController } from './pictures.controller.ts';
import { PicturesService } from './pictures.service.ts';

@Module({
  imports: [TypeOrmModule.forFeature([PictureEntity, FontEntity]), DataModule, WorkModule],
  controllers: [PicturesController, FontsController, AssetsController],
  providers: [PicturesService, FontsService],
  exports: [PicturesService, FontsService],
})
export class FilesModule {}

import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { DataModule } from '../data/data.module.ts';
import { BookController } from './book.controller.ts';
import { BookChangeEntity, MaterialEntity } from './book.entities.ts';
import { BookService } from './book.service.ts';

@Module({
  imports: [TypeOrmModule.forFeature([MaterialEntity, BookChangeEntity]), DataModule],
  controllers: [BookController],
  providers: [BookService],
  exports: [BookService],
})
export class BookModule {}

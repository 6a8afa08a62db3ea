import {
  type BookChange,
  type BookTaken,
  FitDto,
  KerfDto,
  MaterialDto,
  NewMaterialDto,
  NewRecipeDto,
  RecipeDto,
  TakeBookInDto,
  UndoChangeDto,
} from '@lambent/contracts';
import { bookToCsv, bookToText, type Material } from '@lambent/core/recipes';
import { Body, Controller, Get, Header, Param, ParseIntPipe, Post, Put, Query, StreamableFile } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Describe, FileBody, fileOf, listOf, oneOf } from '../api/describe.ts';
import { MayCall } from '../people/may-call.ts';
import { BookService } from './book.service.ts';

@ApiTags('materials')
@Controller('api')
export class BookController {
  constructor(private readonly book: BookService) {}

  @Get('materials')
  @MayCall('operator')
  @Describe('Every material with its recipes', listOf('Material'))
  list(): Promise<Material[]> {
    return this.book.materials();
  }

  @Post('materials')
  @MayCall('operator')
  @Describe('A new material', oneOf('Material', 201), 400, 409)
  addMaterial(@Body() { by, material }: NewMaterialDto): Promise<Material> {
    return this.book.addMaterial(by, material);
  }

  @Put('materials/:id')
  @MayCall('operator')
  @Describe('Changes a material; its recipes are changed one by one', oneOf('Material'), 400, 404, 409)
  changeMaterial(@Param('id') id: string, @Body() { by, version, material }: MaterialDto): Promise<Material> {
    return this.book.changeMaterial(id, by, version, material);
  }

  @Post('materials/:id/recipes')
  @MayCall('operator')
  @Describe('A new recipe of a material', oneOf('Material', 201), 400, 404, 409)
  addRecipe(@Param('id') id: string, @Body() { by, recipe }: NewRecipeDto): Promise<Material> {
    return this.book.addRecipe(id, by, recipe);
  }

  @Put('recipes/:id')
  @MayCall('operator')
  @Describe('Changes a recipe', oneOf('Material'), 400, 404, 409)
  changeRecipe(@Param('id', ParseIntPipe) id: number, @Body() { by, version, recipe }: RecipeDto): Promise<Material> {
    return this.book.changeRecipe(id, by, version, recipe);
  }

  @Get('materials/:id/history')
  @MayCall('operator')
  @Describe('The changes of a material and its recipes, the latest first', listOf('BookChange'), 404)
  history(@Param('id') id: string): Promise<BookChange[]> {
    return this.book.history(id);
  }

  @Post('book/changes/:id/undo')
  @MayCall('operator')
  @Describe('Takes one change of the book back', oneOf('Material'), 400, 404, 409)
  undo(@Param('id', ParseIntPipe) id: number, @Body() { by }: UndoChangeDto): Promise<Material> {
    return this.book.undo(id, by);
  }

  @Get('book/recipe-book.json')
  @MayCall('operator')
  @Describe('The whole book as JSON', fileOf('application/json'))
  @Header('Content-Type', 'application/json')
  async asJson(): Promise<StreamableFile> {
    return file(bookToText(await this.book.materials()), 'recipe-book.json');
  }

  @Get('book/recipe-book.csv')
  @MayCall('operator')
  @Describe('The recipes that are used as a table, in CSV (RFC 4180)', fileOf('text/csv'))
  @Header('Content-Type', 'text/csv; charset=utf-8')
  async asCsv(): Promise<StreamableFile> {
    return file(bookToCsv(await this.book.materials()), 'recipe-book.csv');
  }

  @Post('book/take-in')
  @MayCall('operator')
  @FileBody()
  @Describe('Takes a book in, whole as JSON or as a table in CSV', oneOf('BookTaken'), 400, 413)
  takeIn(@Query() { by, format, take }: TakeBookInDto, @Body() body: Buffer): Promise<BookTaken> {
    return this.book.takeIn(by, format, Buffer.isBuffer(body) ? body.toString('utf8') : '', take);
  }

  @Put('materials/:id/kerf')
  @MayCall('operator')
  @Describe('Keeps the width of the burn with the cutting recipe of a machine', oneOf('Material'), 400, 404, 409)
  kerf(@Param('id') id: string, @Body() kerf: KerfDto): Promise<Material> {
    return this.book.keepKerf(id, kerf);
  }

  @Put('materials/:id/fit')
  @MayCall('operator')
  @Describe('Keeps what a fit is in a material', oneOf('Material'), 400, 404)
  fit(@Param('id') id: string, @Body() fit: FitDto): Promise<Material> {
    return this.book.keepFit(id, fit);
  }
}

function file(text: string, name: string): StreamableFile {
  return new StreamableFile(Buffer.from(text, 'utf8'), { disposition: `attachment; filename="${name}"` });
}

import {
  type BookChange,
  type BookTaken,
  FitDto,
  KerfDto,
  MaterialDto,
  NewMaterialDto,
  NewRecipeDto,
  RecipeDto,
  UndoChangeDto,
} from '@lambent/contracts';
import { bookToCsv, bookToText, type Material } from '@lambent/core/recipes';
import {
  Body,
  Controller,
  Get,
  Header,
  HttpCode,
  Param,
  ParseIntPipe,
  Post,
  Put,
  Query,
  StreamableFile,
} from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { PlainError } from '../common/plain-error.ts';
import { BookService } from './book.service.ts';

@ApiTags('materials')
@Controller('api')
export class BookController {
  constructor(private readonly book: BookService) {}

  /** Every material with its recipes. */
  @Get('materials')
  list(): Promise<Material[]> {
    return this.book.materials();
  }

  @Post('materials')
  addMaterial(@Body() { by, material }: NewMaterialDto): Promise<Material> {
    return this.book.addMaterial(by, material);
  }

  @Put('materials/:id')
  changeMaterial(@Param('id') id: string, @Body() { by, version, material }: MaterialDto): Promise<Material> {
    return this.book.changeMaterial(id, by, version, material);
  }

  @Post('materials/:id/recipes')
  addRecipe(@Param('id') id: string, @Body() { by, recipe }: NewRecipeDto): Promise<Material> {
    return this.book.addRecipe(id, by, recipe);
  }

  @Put('recipes/:id')
  changeRecipe(@Param('id', ParseIntPipe) id: number, @Body() { by, version, recipe }: RecipeDto): Promise<Material> {
    return this.book.changeRecipe(id, by, version, recipe);
  }

  /** The changes of a material and its recipes, the latest first. */
  @Get('materials/:id/history')
  history(@Param('id') id: string): Promise<BookChange[]> {
    return this.book.history(id);
  }

  /** Takes one change of the book back. */
  @Post('book/changes/:id/undo')
  @HttpCode(200)
  undo(@Param('id', ParseIntPipe) id: number, @Body() { by }: UndoChangeDto): Promise<Material> {
    return this.book.undo(id, by);
  }

  /** The whole book as JSON. */
  @Get('book/recipe-book.json')
  @Header('Content-Type', 'application/json')
  async asJson(): Promise<StreamableFile> {
    return file(bookToText(await this.book.materials()), 'recipe-book.json');
  }

  /** The recipes that are used as a table, in CSV (RFC 4180). */
  @Get('book/recipe-book.csv')
  @Header('Content-Type', 'text/csv; charset=utf-8')
  async asCsv(): Promise<StreamableFile> {
    return file(bookToCsv(await this.book.materials()), 'recipe-book.csv');
  }

  /**
   * Takes a book in, whole as JSON or as a table in CSV, sent as it is.
   * @param take `good` takes what can be taken, `all-or-nothing` nothing unless all can
   */
  @Post('book/take-in')
  @HttpCode(200)
  takeIn(
    @Query('by') by: string,
    @Query('format') format: string,
    @Query('take') take: string,
    @Body() body: Buffer,
  ): Promise<BookTaken> {
    if (!by?.trim()) throw new PlainError(400, 'bad-request', 'Say who changes the book.');
    if (format !== 'json' && format !== 'csv')
      throw new PlainError(400, 'bad-request', 'A book is read as json or csv.');
    if (take !== 'good' && take !== 'all-or-nothing') {
      throw new PlainError(400, 'bad-request', 'Say whether to take what is good, or all-or-nothing.');
    }
    const text = Buffer.isBuffer(body) ? body.toString('utf8') : '';
    return this.book.takeIn(by.trim(), format, text, take);
  }

  /** Keeps the width of the burn with the material's cutting recipe on a machine. */
  @Put('materials/:id/kerf')
  kerf(@Param('id') id: string, @Body() kerf: KerfDto): Promise<Material> {
    return this.book.keepKerf(id, kerf);
  }

  /** Keeps what a fit is in a material. */
  @Put('materials/:id/fit')
  fit(@Param('id') id: string, @Body() fit: FitDto): Promise<Material> {
    return this.book.keepFit(id, fit);
  }
}

function file(text: string, name: string): StreamableFile {
  return new StreamableFile(Buffer.from(text, 'utf8'), { disposition: `attachment; filename="${name}"` });
}

import type { BurntOperation } from '@lambent/core/operations';
import type { Evidence, FigureSource, Material, Proof, Recipe } from '@lambent/core/recipes';
import type { LayerSettings } from '@lambent/core/settings';
import {
  Column,
  Entity,
  Index,
  JoinColumn,
  ManyToOne,
  OneToMany,
  PrimaryColumn,
  PrimaryGeneratedColumn,
} from 'typeorm';
import { Owned } from '../data/owned.ts';

@Entity('materials')
export class MaterialEntity extends Owned {
  @PrimaryColumn('text') id!: string;
  @Column('integer') position!: number;
  @Column('text') name!: string;
  @Column('real') thicknessMm!: number;
  @Column('text') tone!: string;
  @Column('real') sheetWidth!: number;
  @Column('real') sheetHeight!: number;
  @Column('text', { nullable: true }) forbidden!: string | null;
  @Column('text', { nullable: true }) family!: string | null;
  @Column('real', { nullable: true }) measuredMm!: number | null;
  @Column('text', { nullable: true }) colour!: string | null;
  @Column('text', { nullable: true }) finish!: string | null;
  @Column('boolean') masked!: boolean;
  @Column('text') notes!: string;
  @Column('boolean') archived!: boolean;
  @Column('boolean', { default: false }) isClear!: boolean;
  @Column('boolean', { default: false }) turnsLighter!: boolean;
  @Column('simple-json', { nullable: true }) leastSizes!: Material['leastSizes'] | null;
  @Column('integer') version!: number;
  @Column('simple-json', { nullable: true }) fits!: Material['fits'] | null;
  @Column('simple-json', { nullable: true }) stock!: Material['stock'] | null;
  @OneToMany(
    () => RecipeEntity,
    (recipe) => recipe.material,
    { cascade: true },
  )
  recipes!: RecipeEntity[];
}

@Entity('recipes')
export class RecipeEntity extends Owned {
  @PrimaryGeneratedColumn() id!: number;
  @Index()
  @Column('text')
  materialId!: string;
  @ManyToOne(
    () => MaterialEntity,
    (material) => material.recipes,
    { onDelete: 'CASCADE' },
  )
  @JoinColumn({ name: 'materialId' })
  material!: MaterialEntity;
  @Column('text') machineId!: string;
  @Column('text') operation!: BurntOperation;
  @Column('text', { nullable: true }) lensId!: string | null;
  @Column('text') variant!: string;
  @Column('simple-json') settings!: Partial<LayerSettings>;
  @Column('simple-json', { nullable: true }) kerfFrom!: FigureSource | null;
  @Column('text') evidence!: Evidence;
  @Column('simple-json', { nullable: true }) proof!: Proof | null;
  @Column('text') note!: string;
  @Column('text', { nullable: true }) pictureId!: string | null;
  @Column('boolean') archived!: boolean;
  @Column('integer') version!: number;
}

/** One change of the book: of a material, or of a recipe of it, with what it was and what it is since. */
@Entity('book_changes')
export class BookChangeEntity extends Owned {
  @PrimaryGeneratedColumn() id!: number;
  @Column('datetime') at!: Date;
  @Column('text') by!: string;
  @Index()
  @Column('text')
  materialId!: string;
  @ManyToOne(() => MaterialEntity, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'materialId' })
  material!: MaterialEntity;
  @Index()
  @Column('integer', { nullable: true })
  recipeId!: number | null;
  @Column('text') what!: string;
  @Column('simple-json', { nullable: true }) before!: Material | Recipe | null;
  @Column('simple-json') after!: Material | Recipe;
}

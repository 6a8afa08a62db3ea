import type { RunStatus, TakenSheet } from '@lambent/contracts';
import type { ColourKey } from '@lambent/core/colours';
import type { JobDocument, Run, Sheet } from '@lambent/core/document';
import type { Machine } from '@lambent/core/machine';
import type { BurntOperation } from '@lambent/core/operations';
import type { Evidence, FigureSource, Material, Proof, Recipe } from '@lambent/core/recipes';
import type { LayerSettings } from '@lambent/core/settings';
import {
  Column,
  CreateDateColumn,
  Entity,
  Index,
  JoinColumn,
  ManyToOne,
  OneToMany,
  PrimaryColumn,
  PrimaryGeneratedColumn,
} from 'typeorm';

@Entity('machines')
export class MachineEntity {
  @PrimaryColumn('text') id!: string;
  @Column('integer') position!: number;
  @Column('simple-json') definition!: Machine;
}

@Entity('colour_keys')
export class ColourKeyEntity {
  @PrimaryColumn('text') id!: string;
  @Column('integer') position!: number;
  @Column('simple-json') definition!: ColourKey;
}

@Entity('materials')
export class MaterialEntity {
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
export class RecipeEntity {
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
export class BookChangeEntity {
  @PrimaryGeneratedColumn() id!: number;
  @Column('datetime') at!: Date;
  @Column('text') by!: string;
  @Column('text') materialId!: string;
  @Column('integer', { nullable: true }) recipeId!: number | null;
  @Column('text') what!: string;
  @Column('simple-json', { nullable: true }) before!: Material | Recipe | null;
  @Column('simple-json') after!: Material | Recipe;
}

@Entity('jobs')
export class JobEntity {
  @PrimaryColumn('text') id!: string;
  @Column('text') title!: string;
  @Column('text') project!: string;
  @Column('integer') version!: number;
  @CreateDateColumn() createdAt!: Date;
  @Column('datetime') updatedAt!: Date;
  /** Grows with every change of any job: what the Desk is sorted by, since clocks can be set back. */
  @Index()
  @Column('integer')
  changed!: number;
  @Column('datetime', { nullable: true }) deletedAt!: Date | null;
}

/** A drawing as gzipped JSON, kept once however many versions hold it. */
@Entity('drawings')
export class DrawingEntity {
  @PrimaryColumn('text') hash!: string;
  @Column('integer') itemCount!: number;
  @Column('blob') json!: Buffer;
}

/** Which pictures a drawing shows. */
@Entity('drawing_pictures')
export class DrawingPictureEntity {
  @PrimaryColumn('text') drawingHash!: string;
  @PrimaryColumn('text') pictureId!: string;
}

@Entity('versions')
@Index(['jobId', 'number'], { unique: true })
export class VersionEntity {
  @PrimaryGeneratedColumn() id!: number;
  @Column('text') jobId!: string;
  @ManyToOne(() => JobEntity, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'jobId' })
  job!: JobEntity;
  @Column('integer') number!: number;
  @Column('text') edit!: string;
  @Column('datetime') savedAt!: Date;
  /** The document without its drawing. */
  @Column('simple-json') settings!: Omit<JobDocument, 'drawing'>;
  @Column('text') drawingHash!: string;
  @ManyToOne(() => DrawingEntity)
  @JoinColumn({ name: 'drawingHash' })
  drawing!: DrawingEntity;
}

/** A picture that drawings show, under the SHA-256 of the file it came from. */
@Entity('pictures')
export class PictureEntity {
  @PrimaryColumn('text') id!: string;
  @Column('text') mediaType!: string;
  @Column('blob') bytes!: Buffer;
  @Column('datetime') addedAt!: Date;
}

/** Something that the shop has settled for every job. */
@Entity('settings')
export class SettingEntity {
  @PrimaryColumn('text') name!: string;
  @Column('text') value!: string;
}

/** A font that the shop loaded. */
@Entity('fonts')
export class FontEntity {
  @PrimaryColumn('text') id!: string;
  @Column('text') family!: string;
  @Column('boolean') bold!: boolean;
  @Column('boolean') italic!: boolean;
  @Column('blob') bytes!: Buffer;
  @Column('datetime') addedAt!: Date;
}

/** A file as it was brought in, byte for byte. */
@Entity('originals')
export class OriginalEntity {
  @PrimaryGeneratedColumn() id!: number;
  @Index()
  @Column('text')
  jobId!: string;
  @ManyToOne(() => JobEntity, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'jobId' })
  job!: JobEntity;
  @Column('text') name!: string;
  @Column('text') format!: string;
  @Column('text') sha256!: string;
  @Column('blob') bytes!: Buffer;
  @Column('datetime') addedAt!: Date;
}

@Entity('runs')
@Index(['jobId', 'sequence'])
export class RunEntity {
  @PrimaryColumn('text') id!: string;
  /** Its place in the record, counted from 1. */
  @Index({ unique: true })
  @Column('integer')
  sequence!: number;
  @Column('text')
  jobId!: string;
  @ManyToOne(() => JobEntity, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'jobId' })
  job!: JobEntity;
  @Column('integer') version!: number;
  @Column('text') jobRunId!: string;
  @Column('text') jobRunName!: string;
  @Column('text') machineId!: string;
  @Column('text') status!: RunStatus;
  @Column('text', { nullable: true }) reason!: string | null;
  @Column('datetime') startedAt!: Date;
  @Column('datetime', { nullable: true }) endedAt!: Date | null;
  @Column('text') programHash!: string;
  @Column('integer') lines!: number;
  @Column('integer') doneLine!: number;
  @Column('real') plannedS!: number;
  @Column('real') machineS!: number;
  /** The sheets that it burns on, and whether they are fresh; null on record of earlier versions. */
  @Column('simple-json', { nullable: true }) uses!: { stock: Run['stock']; sheets: Sheet[] } | null;
  /** The sheets that it took from stock. */
  @Column('simple-json') taken!: TakenSheet[];
}

/** What the bed looked like after a run, as the machine showed it; lengths in mm, its points gzipped. */
@Entity('burnt_pictures')
export class BurntPictureEntity {
  @PrimaryColumn('text') runId!: string;
  @Column('real') x!: number;
  @Column('real') y!: number;
  @Column('real') pitchMm!: number;
  @Column('integer') width!: number;
  @Column('integer') height!: number;
  @Column('blob') codes!: Buffer;
}

export const entities = [
  PictureEntity,
  FontEntity,
  SettingEntity,
  MachineEntity,
  ColourKeyEntity,
  MaterialEntity,
  RecipeEntity,
  BookChangeEntity,
  JobEntity,
  DrawingEntity,
  DrawingPictureEntity,
  VersionEntity,
  OriginalEntity,
  RunEntity,
  BurntPictureEntity,
];

import type { Point } from '@lambent/core/geometry';
import { t } from '../../words/words.ts';
import type { BenchActions } from '../state/bench-state.ts';
import { addShape, isDrag, outlineOfShape } from './draw.ts';
import { type ShapeRecipe, shapeRecipes } from './recipes.ts';
import type { Tool, ToolPoint } from './tool.ts';

type Doing =
  | { kind: 'nothing' }
  /** Pressed, not yet dragged. */
  | { kind: 'pressed'; from: Point; screen: Point }
  | { kind: 'dragging'; from: Point }
  /** Clicked once: the shape follows the pointer until it is clicked again, or typed. */
  | { kind: 'following'; from: Point };

/** Draws a shape from two points: by a drag, by two clicks, or by a click and typed numbers. */
export class ShapeTool implements Tool {
  readonly snaps = true;
  private doing: Doing = { kind: 'nothing' };
  private to: ToolPoint | null = null;
  private typed: Record<string, number> = {};
  private readonly recipe: ShapeRecipe;

  constructor(
    private readonly actions: BenchActions,
    readonly name: keyof typeof shapeRecipes,
  ) {
    this.recipe = shapeRecipes[name];
  }

  get from(): Point | null {
    return this.doing.kind === 'nothing' ? null : this.doing.from;
  }

  down(point: ToolPoint): void {
    if (point.button !== 0) return;
    if (this.doing.kind === 'following') {
      this.to = point;
      this.finish();
      return;
    }
    this.doing = { kind: 'pressed', from: point.bed, screen: point.screen };
    this.to = point;
  }

  move(point: ToolPoint): void {
    this.to = point;
    if (this.doing.kind === 'pressed' && isDrag(this.doing.screen, point.screen)) {
      this.doing = { kind: 'dragging', from: this.doing.from };
    }
    this.show();
  }

  up(point: ToolPoint): void {
    if (this.doing.kind === 'dragging') {
      this.to = point;
      this.finish();
    } else if (this.doing.kind === 'pressed') {
      this.doing = { kind: 'following', from: this.doing.from };
      this.show();
    }
  }

  cancel(): boolean {
    const was = this.doing.kind !== 'nothing';
    this.doing = { kind: 'nothing' };
    this.typed = {};
    this.actions.showDraft(null);
    return was;
  }

  type(field: string, value: number): string | undefined {
    const angle = this.recipe.fields.find(({ name }) => name === field)?.kind === 'angle';
    if (!angle && !(value > 0)) return t('A size is more than 0.');
    if (!angle && value > 10_000) return t('That is larger than any bed.');
    this.typed = { ...this.typed, [field]: value };
    this.show();
    return undefined;
  }

  finish(): void {
    const { doing, actions, recipe } = this;
    if (doing.kind === 'nothing' || !this.to) return;
    const numbers = this.numbers(doing.from, this.to);
    const { toolOptions } = actions.get();
    const flat = recipe.fields.some(({ name, kind }) => kind === 'length' && !(numbers[name] > 1e-6));
    // A second click on the first draws nothing.
    if (flat) return;
    const shape = recipe.make(doing.from, this.towards(doing.from), numbers, toolOptions);
    this.cancel();
    actions.measureFrom(doing.from);
    addShape(actions, shape, recipe.title);
  }

  private numbers(from: Point, to: ToolPoint): Record<string, number> {
    const { toolOptions } = this.actions.get();
    return { ...this.recipe.measure(from, to.bed, to.shift, toolOptions), ...this.typed };
  }

  private towards(from: Point): Point {
    const to = this.to?.bed ?? from;
    return { x: to.x < from.x ? -1 : 1, y: to.y < from.y ? -1 : 1 };
  }

  private show(): void {
    const { doing, actions, recipe, to } = this;
    if (doing.kind === 'nothing' || doing.kind === 'pressed' || !to) return;
    const { toolOptions } = actions.get();
    const numbers = this.numbers(doing.from, to);
    const shape = recipe.make(doing.from, this.towards(doing.from), numbers, toolOptions);
    actions.showDraft({
      outline: outlineOfShape(shape),
      dots: [doing.from],
      at: to.bed,
      trouble: recipe.trouble?.(numbers, toolOptions) ?? null,
      fields: recipe.fields.map((field) => ({
        ...field,
        value: numbers[field.name],
        typed: field.name in this.typed,
      })),
    });
  }
}

import {
  Circle,
  Hexagon,
  type LucideIcon,
  MousePointer2,
  PencilLine,
  Pill,
  RulerDimensionLine,
  Scissors,
  Slash,
  Spline,
  Square,
  SquareRoundCorner,
  Type,
  Waypoints,
} from 'lucide-react';
import { t } from '../../words/words.ts';
import type { DrawingToolName } from './tool.ts';

/** What a tool is called, what it looks like, and its key: the top letter rows, in the order of the dock. */
export const toolLooks: Record<DrawingToolName, { text: string; icon: LucideIcon; code: string; key: string }> = {
  pick: { text: t('Pick and move'), icon: MousePointer2, code: 'KeyQ', key: 'Q' },
  points: { text: t('Points'), icon: Waypoints, code: 'KeyW', key: 'W' },
  rectangle: { text: t('Rectangle'), icon: Square, code: 'KeyE', key: 'E' },
  ellipse: { text: t('Ellipse'), icon: Circle, code: 'KeyR', key: 'R' },
  slot: { text: t('Slot'), icon: Pill, code: 'KeyT', key: 'T' },
  polygon: { text: t('Polygon or star'), icon: Hexagon, code: 'KeyY', key: 'Y' },
  line: { text: t('Line'), icon: Slash, code: 'KeyU', key: 'U' },
  arc: { text: t('Arc'), icon: Spline, code: 'KeyI', key: 'I' },
  freehand: { text: t('Freehand'), icon: PencilLine, code: 'KeyO', key: 'O' },
  text: { text: t('Text'), icon: Type, code: 'KeyP', key: 'P' },
  stretch: { text: t('Trim, lengthen, split'), icon: Scissors, code: 'KeyF', key: 'F' },
  dimension: { text: t('Dimension mark'), icon: RulerDimensionLine, code: 'KeyH', key: 'H' },
  corner: { text: t('Round or cut corners'), icon: SquareRoundCorner, code: 'KeyG', key: 'G' },
};

import { type Item, outlineOf, type TraceSettings } from '@lambent/core/document';
import { appendPath, applyTo, invert, meanScale, type Path, PathBuilder, type Point } from '@lambent/core/geometry';
import { Eraser, Lasso, Square } from 'lucide-react';
import { type Dispatch, type SetStateAction, useState } from 'react';
import { Button } from '../../../../ui/button.tsx';
import { LengthField } from '../../../../ui/length-field.tsx';
import { t } from '../../../../words/words.ts';
import { useBench, useBenchActions } from '../../../context.ts';
import { unitOf } from '../../../state/document.ts';
import { askForPart, outlineThrough } from '../../../tools/part-tool.ts';
import { Part } from '../../drawer.tsx';

type AreaWay = 'box' | 'lasso' | 'rub';

const words: Record<AreaWay, string> = {
  box: t('Drag a box around what is to be kept'),
  lasso: t('Draw around what is to be kept'),
  rub: t('Rub out what is not wanted'),
};

interface Props {
  picture: Item;
  settings: TraceSettings;
  change: Dispatch<SetStateAction<TraceSettings>>;
  /** Shows on the bed what is being cropped or rubbed out. */
  sketch: (path: Path | null) => void;
}

/** Which part of the picture counts. */
export function AreaFields({ picture, settings: { part, rubbed }, change, sketch }: Props) {
  const unit = useBench(unitOf);
  const actions = useBenchActions();
  const [eraserMm, setEraserMm] = useState(4);
  const { matrix } = picture;
  const show = (way: AreaWay, radiusMm = eraserMm / 2) =>
    askForPart(actions, words[way], way, {
      sketch: (points) => sketch(points && (way === 'rub' ? dabs(points, radiusMm) : outlineThrough(points))),
      take: (points) => {
        const toPixels = invert(matrix);
        if (!toPixels) return;
        const inPixels = ({ x, y }: Point) => applyTo(toPixels, x, y);
        if (way !== 'rub') change((before) => ({ ...before, part: points.map(inPixels) }));
        else {
          const radius = radiusMm / meanScale(matrix);
          const places = evenly(points, radiusMm / 2).map((place) => ({ ...inPixels(place), radius }));
          change((before) => ({ ...before, rubbed: [...before.rubbed, ...places] }));
        }
      },
    });
  return (
    <Part title={t('Area')}>
      <div className="grid grid-cols-3 gap-1.5">
        <Button title={words.box} onClick={() => show('box')}>
          <Square size={14} aria-hidden /> {t('Box')}
        </Button>
        <Button title={words.lasso} onClick={() => show('lasso')}>
          <Lasso size={14} aria-hidden /> {t('Lasso')}
        </Button>
        <Button title={words.rub} onClick={() => show('rub')}>
          <Eraser size={14} aria-hidden /> {t('Rub out')}
        </Button>
      </div>
      <LengthField
        label={t('Eraser’s width')}
        layout="row"
        unit={unit}
        value={eraserMm}
        within={[0.1, 200]}
        commit={(typed) => {
          setEraserMm(typed);
          show('rub', typed / 2);
        }}
      />
      {(part.length > 0 || rubbed.length > 0) && (
        <div className="-ml-2 flex flex-wrap">
          {part.length > 0 && (
            <Button look="quiet" onClick={() => change((before) => ({ ...before, part: [] }))}>
              {t('Keep all of it')}
            </Button>
          )}
          {rubbed.length > 0 && (
            <Button look="quiet" onClick={() => change((before) => ({ ...before, rubbed: [] }))}>
              {t('Bring back what was rubbed out')}
            </Button>
          )}
        </div>
      )}
    </Part>
  );
}

/** The round places that an eraser covers. */
function dabs(points: readonly Point[], radius: number): Path {
  const builder = new PathBuilder();
  for (const { x, y } of points) {
    appendPath(builder, outlineOf({ kind: 'ellipse', cx: x, cy: y, rx: radius, ry: radius }), true);
  }
  return builder.build();
}

/** Places along a way, the first and the last of it, with no more than a step between them, and hardly less. */
function evenly(points: readonly Point[], step: number): Point[] {
  const places = [points[0]];
  for (const [i, { x, y }] of points.entries()) {
    const from = places[places.length - 1];
    const distance = Math.hypot(x - from.x, y - from.y);
    if (distance < step && i < points.length - 1) continue;
    const count = Math.ceil(distance / step);
    for (let k = 1; k <= count; k++) {
      places.push({ x: from.x + ((x - from.x) * k) / count, y: from.y + ((y - from.y) * k) / count });
    }
  }
  return places;
}

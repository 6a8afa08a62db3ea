import { type Item, outlineOf } from '@lambent/core/document';
import { cropPictures, croppedPicture, uncropPictures } from '@lambent/core/edits';
import type { Path, Point } from '@lambent/core/geometry';
import { Circle, Lasso, Square } from 'lucide-react';
import { useEffect } from 'react';
import { toast } from 'sonner';
import { Button } from '../../../../ui/button.tsx';
import { t } from '../../../../words/words.ts';
import { useBenchActions } from '../../../context.ts';
import { nameOf } from '../../../thing-names.ts';
import { askForPart, outlineThrough } from '../../../tools/part-tool.ts';
import { Part } from '../../drawer.tsx';

const ways = [
  { way: 'box', name: t('Box'), icon: Square, words: t('Drag a box around what is to be seen') },
  { way: 'circle', name: t('Circle'), icon: Circle, words: t('Drag from the middle of a circle to its edge') },
  { way: 'lasso', name: t('Lasso'), icon: Lasso, words: t('Draw around what is to be seen') },
] as const;
type CropWay = (typeof ways)[number]['way'];

/** What of a picture counts; the rest is kept, and neither shows nor burns. */
export function CropPart({ item }: { item: Item }) {
  const actions = useBenchActions();
  useEffect(() => () => actions.showDraft(null), [actions]);
  const crop = (outline: Path) => {
    const cropped = croppedPicture(item, outline);
    if (!cropped) toast.message(t('Nothing of the picture lies in it.'));
    else if (cropped === item) toast.message(t('All of the picture lies in it.'));
    else
      actions.edit(t('crop {{item}}', { item: nameOf(item) }), (job) => cropPictures(job, new Set([item.id]), outline));
  };
  const ask = (way: CropWay, words: string) =>
    askForPart(actions, words, way, {
      sketch: (points) => actions.showDraft(points && { outline: outlineFor(way, points), gone: null }),
      take: (points) => crop(outlineFor(way, points)),
    });
  return (
    <Part title={t('Crop')}>
      <div className="grid grid-cols-3 gap-1.5">
        {ways.map(({ way, name, icon: Icon, words }) => (
          <Button key={way} title={words} onClick={() => ask(way, words)}>
            <Icon size={14} aria-hidden /> {name}
          </Button>
        ))}
      </div>
      <p className="text-[12px] text-quiet">
        {t('To crop it to an outline that lies in front of it, select both:')} <em>{t('Mend lines')}</em>{' '}
        {t('keeps what is inside.')}
      </p>
      {item.shape.kind === 'picture' && item.shape.crop && (
        <Button
          className="self-start"
          onClick={() =>
            actions.edit(t('show all of {{item}}', { item: nameOf(item) }), (job) =>
              uncropPictures(job, new Set([item.id])),
            )
          }
        >
          {t('Show all of it')}
        </Button>
      )}
    </Part>
  );
}

function outlineFor(way: CropWay, points: readonly Point[]): Path {
  if (way !== 'circle' || points.length < 2) return outlineThrough(points);
  const [{ x, y }, rim] = points;
  const radius = Math.hypot(rim.x - x, rim.y - y);
  return outlineOf({ kind: 'ellipse', cx: x, cy: y, rx: radius, ry: radius });
}

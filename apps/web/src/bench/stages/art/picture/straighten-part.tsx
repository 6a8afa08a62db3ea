import type { Item } from '@lambent/core/document';
import { replacePicture } from '@lambent/core/fit';
import { applyTo, invert, multiply, type Point, scaling, translation } from '@lambent/core/geometry';
import { cornersInOrder, NotFourCorners } from '@lambent/core/pictures';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../../../../api.ts';
import { Button } from '../../../../ui/button.tsx';
import { Choice } from '../../../../ui/choice.tsx';
import { asSize } from '../../../../ui/figures.ts';
import { LengthField } from '../../../../ui/length-field.tsx';
import { Tick } from '../../../../ui/tick.tsx';
import { t } from '../../../../words/words.ts';
import { work } from '../../../../workers/work.ts';
import { showPicture } from '../../../bed/pictures.ts';
import { useBench, useBenchActions } from '../../../context.ts';
import { unitOf } from '../../../state/document.ts';
import { nameOf } from '../../../thing-names.ts';
import { CornersTool } from '../../../tools/corners-tool.ts';
import { outlineThrough } from '../../../tools/part-tool.ts';

/** Things that lie about in every shop, the longer side first, in mm. */
const known = {
  a4: { text: t('A4 sheet'), long: 297, short: 210 },
  a3: { text: t('A3 sheet'), long: 420, short: 297 },
  a5: { text: t('A5 sheet'), long: 210, short: 148 },
  letter: { text: t('Letter sheet'), long: 279.4, short: 215.9 },
  card: { text: t('Bank card'), long: 85.6, short: 53.98 },
} as const;
type Thing = keyof typeof known | 'other';

/** Takes the perspective out of a photo of something flat, by the four corners of what one knows the size of. */
export function StraightenPart({ item }: { item: Item }) {
  const actions = useBenchActions();
  /** The corners in order, in the picture's pixels; null while none are marked. */
  const [corners, setCorners] = useState<readonly Point[] | null>(null);
  const [isOpen, setOpen] = useState(false);
  const { matrix } = item;
  useEffect(() => () => actions.showDraft(null), [actions]);
  const mark = () => {
    const toPixels = invert(matrix);
    if (!toPixels) return;
    setOpen(true);
    actions.get().tool?.cancel();
    const sketch = (points: readonly Point[] | null) =>
      actions.showDraft(points && { outline: outlineThrough(points), gone: null });
    const take = (points: readonly Point[]) => {
      try {
        setCorners(cornersInOrder(points.map(({ x, y }) => applyTo(toPixels, x, y))));
        sketch(points);
      } catch (error) {
        if (!(error instanceof NotFourCorners)) throw error;
        sketch(null);
        toast.message(error.message);
      }
    };
    actions.takeTool(new CornersTool(actions, { sketch, take }));
  };
  const leave = () => {
    setCorners(null);
    setOpen(false);
    actions.showDraft(null);
  };
  if (!isOpen) {
    return (
      <Button look="quiet" className="-ml-3 self-start" onClick={mark}>
        {t('Photographed at an angle? Straighten it')}
      </Button>
    );
  }
  return (
    <section
      aria-label={t('Straighten it')}
      className="flex flex-col gap-2 rounded-[10px] border border-line bg-raised p-3"
    >
      {corners ? (
        <Size item={item} corners={corners} again={mark} done={leave} />
      ) : (
        <p>{t('Click the four corners of something flat whose size you know: a sheet, a card.')}</p>
      )}
      <Button look="quiet" className="-ml-3 self-start" onClick={leave}>
        {t('Never mind')}
      </Button>
    </section>
  );
}

function Size(props: { item: Item; corners: readonly Point[]; again: () => void; done: () => void }) {
  const unit = useBench(unitOf);
  const { item, corners, again, done } = props;
  const actions = useBenchActions();
  const isWide = isWiderThanHigh(corners);
  const [thing, setThing] = useState<Thing>('a4');
  const [other, setOther] = useState({ widthMm: 100, heightMm: 100 });
  const [isAround, setAround] = useState(false);
  const [busy, setBusy] = useState(false);
  const size = thing === 'other' ? other : sizeOf(known[thing], isWide);
  const straighten = async () => {
    if (item.shape.kind !== 'picture') return;
    setBusy(true);
    try {
      const made = await work('straightened', [item.shape.pictureId, corners, size, isAround]);
      const { id, bytes, width, height, mm, left, top } = made;
      await api.keepPicture(id, bytes);
      await showPicture(id, bytes);
      // The middle of what was marked stays where it is.
      const from = middleOf(corners.map(({ x, y }) => applyTo(item.matrix, x, y)));
      const place = translation(from.x - size.widthMm / 2 + left, from.y - size.heightMm / 2 + top);
      const instead = { pictureId: id, width, height, matrix: multiply(place, scaling(mm, mm)) };
      actions.edit(t('straighten {{item}}', { item: nameOf(item) }), (job) => replacePicture(job, item.id, instead));
      done();
    } catch (error) {
      toast.error(t('The picture was not straightened. {{error}}', { error: sentenceOf(error) }));
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      <Choice<Thing>
        label={t('Corners of')}
        value={thing}
        options={[
          ...Object.entries(known).map(([value, entry]) => {
            const { widthMm, heightMm } = sizeOf(entry, isWide);
            return { value: value as Thing, text: entry.text, aside: asSize(widthMm, heightMm, unit) };
          }),
          { value: 'other', text: t('Another size') },
        ]}
        choose={setThing}
      />
      {thing === 'other' && (
        <div className="grid grid-cols-2 gap-2">
          {(['widthMm', 'heightMm'] as const).map((name) => (
            <LengthField
              key={name}
              label={name === 'widthMm' ? t('Its width') : t('Its height')}
              unit={unit}
              value={other[name]}
              within={[1, 5000]}
              commit={(typed) => setOther({ ...other, [name]: typed })}
            />
          ))}
        </div>
      )}
      <Tick checked={isAround} set={setAround}>
        {t('keep what lies around it')}
      </Tick>
      <div className="flex gap-1.5">
        <Button look="main" disabled={busy} onClick={() => void straighten()}>
          {busy ? t('Straightening…') : t('Straighten')}
        </Button>
        <Button disabled={busy} onClick={again}>
          {t('Mark again')}
        </Button>
      </div>
    </>
  );
}

function sizeOf({ long, short }: { long: number; short: number }, isWide: boolean) {
  return isWide ? { widthMm: long, heightMm: short } : { widthMm: short, heightMm: long };
}

function isWiderThanHigh([a, b, c, d]: readonly Point[]): boolean {
  const length = (from: Point, to: Point) => Math.hypot(to.x - from.x, to.y - from.y);
  return length(a, b) + length(d, c) > length(a, d) + length(b, c);
}

function middleOf(points: readonly Point[]): Point {
  const sum = points.reduce((all, { x, y }) => ({ x: all.x + x, y: all.y + y }));
  return { x: sum.x / points.length, y: sum.y / points.length };
}

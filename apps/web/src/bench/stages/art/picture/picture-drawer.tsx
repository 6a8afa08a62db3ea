import type { Item } from '@lambent/core/document';
import { t } from '../../../../words/words.ts';
import { useBench, useBenchActions } from '../../../context.ts';
import { jobOf } from '../../../state/document.ts';
import { nameOf } from '../../../thing-names.ts';
import { ArtPage } from '../art-page.tsx';
import { BurntGreys } from './burnt-greys.tsx';
import { CropPart } from './crop-part.tsx';
import { OutlinesPart } from './outlines-part.tsx';
import { changeOutlines, type PictureUse, showUse, usePictureUse } from './picture-use.ts';
import { selectedAlone } from './selected-picture.ts';
import { StraightenPart } from './straighten-part.tsx';

/** A picture that is selected: its greys burn, or outlines are made of what it shows. */
export function PictureDrawer({ item }: { item: Item }) {
  const actions = useBenchActions();
  const use = usePictureUse((state) => state.use);
  const file = useBench((state) => jobOf(state).arrivals.find(({ id }) => item.id.startsWith(id))?.file);
  const name = file ?? nameOf(item);
  if (item.shape.kind !== 'picture') return null;
  const { width, height } = item.shape;
  const [a, b] = item.matrix;
  const perMm = 1 / Math.hypot(a, b);
  return (
    <ArtPage label={t('Picture {{name}}', { name })} title={name} leave={() => actions.select([])}>
      <p className="figures px-3.5 pb-2 text-[12px] text-quiet">
        {t('{{width}} × {{height}} pixels · {{perMm}} per mm', { width, height, perMm: Number(perMm.toPrecision(3)) })}
      </p>
      <div className="flex flex-col px-3.5 pb-2">
        <StraightenPart key={item.id} item={item} />
      </div>
      <div
        role="tablist"
        aria-label={t('What becomes of it')}
        className="mx-3.5 mb-2 flex rounded-lg border border-line"
      >
        <Tab use="greys" chosen={use} words={t('Burn its greys')} />
        <Tab use="outlines" chosen={use} words={t('Make outlines')} />
      </div>
      <div role="tabpanel" className="flex min-h-0 flex-1 flex-col">
        {use === 'greys' ? (
          <div data-scrolls className="relative flex min-h-0 flex-1 flex-col gap-3.5 overflow-y-auto px-3.5 pb-4">
            <BurntGreys item={item} />
            <CropPart item={item} />
          </div>
        ) : (
          <OutlinesPart key={item.id} picture={item} traced={null} />
        )}
      </div>
    </ArtPage>
  );
}

/** Outlines of a picture that are selected: how they are found in it is changed here. */
export function TracedDrawer({ picture }: { picture: Item }) {
  const item = useBench(selectedAlone);
  if (!item) return null;
  return (
    <ArtPage label={nameOf(item)} title={nameOf(item)} leave={() => changeOutlines(null)}>
      <OutlinesPart key={item.id} picture={picture} traced={item} />
    </ArtPage>
  );
}

function Tab({ use, chosen, words }: { use: PictureUse; chosen: PictureUse; words: string }) {
  const isChosen = use === chosen;
  return (
    <button
      type="button"
      role="tab"
      aria-selected={isChosen}
      onClick={() => showUse(use)}
      className={`h-8 flex-1 rounded-[7px] text-[13px] ${isChosen ? 'bg-petrol font-semibold text-on-petrol' : 'hover:bg-petrol-soft'}`}
    >
      {words}
    </button>
  );
}

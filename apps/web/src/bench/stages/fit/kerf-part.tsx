import { boundsOf, type Item, type Keep } from '@lambent/core/document';
import { changeSetting, keepSide, setBurning } from '@lambent/core/edits';
import { burntGrowth } from '@lambent/core/fit';
import { boxHeight, boxWidth } from '@lambent/core/geometry';
import { separates } from '@lambent/core/operations';
import { countPieces, type PreparedLayer } from '@lambent/core/plan';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { asSize } from '../../../ui/figures.ts';
import { LengthField } from '../../../ui/length-field.tsx';
import { t } from '../../../words/words.ts';
import { piecesOf } from '../../bed/draw-gaps.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { jobOf, unitOf } from '../../state/document.ts';
import { pieceSizesOf } from '../../state/plan.ts';
import { kerfWords } from './kerf-words.ts';

const sides: readonly { value: Keep; text: string }[] = [
  { value: 'inside', text: t('Keep what is inside') },
  { value: 'outside', text: t('Keep what is outside') },
  { value: 'line', text: t('On the line: nothing allowed') },
];

/** What the beam takes away, which side of it is kept, and what comes of that. */
export function KerfPart() {
  const actions = useBenchActions();
  const prepared = useBench((state) => state.prepared);
  const look = useBench((state) => state.look);
  const cuts = prepared.layers.filter(({ layer, placed }) => separates(layer.operation) && placed.length > 0);
  if (cuts.length === 0) {
    return (
      <p className="text-quiet">
        {t('Nothing is cut yet. The width that the beam takes away counts where cuts close.')}
      </p>
    );
  }
  return (
    <>
      {cuts.map((cut) => (
        <LayerKerf key={cut.id} cut={cut} />
      ))}
      <SelectionKerf cuts={cuts} />
      <FallsOut />
      <Button
        className="self-start"
        title={t('The burn as wide as it is, what falls out gone')}
        onClick={() => actions.chooseLook(look === 'burnt' ? 'operations' : 'burnt')}
      >
        {look === 'burnt' ? t('Show operations again') : t('Show the burn’s width')}
      </Button>
    </>
  );
}

function LayerKerf({ cut: { id, layer, applied, burning } }: { cut: PreparedLayer }) {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  return (
    <section aria-label={layer.name} className="flex flex-col gap-1.5">
      <LengthField
        label={t('Kerf of {{name}}', { name: layer.name })}
        unit={unit}
        value={applied.settings?.kerfMm ?? 0}
        takes="not-below-0"
        commit={(kerfMm) => {
          actions.edit(t('kerf of {{name}}', { name: layer.name }), (job) => changeSetting(job, id, 'kerfMm', kerfMm));
          return undefined;
        }}
      />
      <p className="text-[12px] text-quiet">{kerfWords(applied)}</p>
      <Choice
        label={t('{{name}} keeps', { name: layer.name })}
        value={burning.keep}
        options={[{ value: 'nesting' as const, text: t('Pieces and holes by nesting') }, ...sides]}
        choose={(keep) =>
          actions.edit(t('what {{name}} keeps', { name: layer.name }), (job) => setBurning(job, layer.id, { keep }))
        }
      />
    </section>
  );
}

function SelectionKerf({ cuts }: { cuts: readonly PreparedLayer[] }) {
  const actions = useBenchActions();
  const selection = useBench((state) => state.selection);
  const drawing = useBench((state) => jobOf(state).drawing);
  const cutLayerOf = (item: Item) => cuts.find(({ placed }) => placed.some((entry) => entry.item.id === item.id));
  const chosen = selection.size > 200 ? [] : drawing.items.filter((item) => selection.has(item.id) && cutLayerOf(item));
  if (chosen.length === 0) return null;
  const words = new Set(chosen.map(({ keep }) => keep ?? 'layer'));
  return (
    <section aria-label={t('The selection')} className="flex flex-col gap-1.5">
      <Choice
        label={t('Selection keeps')}
        value={words.size === 1 ? [...words][0] : null}
        empty={t('Kept differently')}
        options={[{ value: 'layer' as const, text: t('As its layer says') }, ...sides]}
        choose={(keep) =>
          actions.edit(t('what is kept'), (job) => keepSide(job, selection, keep === 'layer' ? null : keep))
        }
      />
      {chosen.length === 1 && <Measures item={chosen[0]} cut={cutLayerOf(chosen[0]) as PreparedLayer} />}
    </section>
  );
}

/** What a piece will measure once it is burnt. */
function Measures({ item, cut: { applied, burning } }: { item: Item; cut: PreparedLayer }) {
  const prepared = useBench((state) => state.prepared);
  const kerfMm = applied.settings?.kerfMm ?? 0;
  const box = boundsOf(item);
  const growth = burntGrowth(item, piecesOf(prepared).depths.get(item.id) ?? 0, kerfMm, burning.keep);
  const unit = useBench(unitOf);
  const size = (distance: number) => asSize(boxWidth(box) + distance, boxHeight(box) + distance, unit, true);
  return (
    <p role="status" className="figures text-[12px] text-quiet">
      {t('Drawn {{size}}; {{kerfMm}}', {
        size: size(0),
        kerfMm:
          kerfMm === 0
            ? t('once burnt, off by the kerf, which is not known')
            : t('once burnt {{growth}}', { growth: size(growth) }),
      })}
    </p>
  );
}

function FallsOut() {
  const sizes = useBench(pieceSizesOf);
  if (!sizes) return null;
  const { pieces, fallsOut } = countPieces(sizes);
  return (
    <p className="text-quiet">
      {t(pieces === 1 ? '1 piece comes free' : '{{pieces}} pieces come free', { pieces })}
      {fallsOut > 0 && t(fallsOut === 1 ? '; 1 cut-out falls out' : '; {{fallsOut}} cut-outs fall out', { fallsOut })}.
    </p>
  );
}

import { drawnPaint } from '@lambent/core/colours';
import type { Group, Item, JobDocument } from '@lambent/core/document';
import { addItems } from '@lambent/core/edits';
import { kerfComb, pinRow, slotComb, stepsBetween, type TestPiece, thicknessBy } from '@lambent/core/fit';
import { boxHeight, boxWidth, translation } from '@lambent/core/geometry';
import { labelOperation, separates } from '@lambent/core/operations';
import type { Material } from '@lambent/core/recipes';
import { lazy, Suspense, useMemo, useState } from 'react';
import { toast } from 'sonner';
import { sentenceOf } from '../../../api.ts';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { formatLength } from '../../../ui/figures.ts';
import { LengthField } from '../../../ui/length-field.tsx';
import { t } from '../../../words/words.ts';
import { showItems } from '../../bed/showing.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { freeOnSheet, roomOn, wordItems } from '../../lay-on-sheet.ts';
import { newId } from '../../new-id.ts';
import type { BenchActions } from '../../state/bench-state.ts';
import { jobOf, machineOf, unitOf } from '../../state/document.ts';

const ReadPieceForm = lazy(() => import('./read-piece-form.tsx'));

type Kind = 'kerf' | 'slots' | 'pins';

const kinds: readonly { value: Kind; text: string }[] = [
  { value: 'kerf', text: t('Kerf comb') },
  { value: 'slots', text: t('Slot comb') },
  { value: 'pins', text: t('Pin and holes') },
];

interface Range {
  readonly from: number;
  readonly to: number;
  readonly step: number;
}

const firstRanges: Record<Kind, Range> = {
  kerf: { from: 0.05, to: 0.4, step: 0.05 },
  slots: { from: -0.15, to: 0.35, step: 0.05 },
  pins: { from: -0.1, to: 0.4, step: 0.1 },
};

const howTo: Record<Kind, string> = {
  kerf: t('Cut it, then try the tongue in each opening: the highest number it still goes into is the kerf.'),
  slots: t('Cut it, then push the stock’s own edge into each opening, and read which is which fit.'),
  pins: t('Cut it, then try the pin in each hole, and read which is which fit.'),
};

/** Pieces that measure what the beam and the stock do, and what is read off them. */
export function TestPiecesPart() {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const sheet = useBench((state) => jobOf(state).sheets[0] ?? null);
  const material = useBench((state) => state.prepared.material);
  const machine = useBench(machineOf);
  const kerfMm = useBench(
    (state) => state.prepared.layers.find(({ layer }) => separates(layer.operation))?.applied.settings?.kerfMm,
  );
  const [kind, setKind] = useState<Kind>('kerf');
  const [ranges, setRanges] = useState(firstRanges);
  const [pin, setPin] = useState(8);
  const range = ranges[kind];
  const thickness = sheet && material ? (thicknessBy([material])(sheet) ?? 0) : 0;
  const piece = useMemo(() => pieceOf(kind, range, thickness, pin), [kind, range, thickness, pin]);
  if (!sheet || !material) {
    return <p className="text-quiet">{t('Lay a sheet first: a test piece measures its material on this machine.')}</p>;
  }
  const room = roomOn(sheet, machine);
  const fits = piece.width <= boxWidth(room) && piece.height <= boxHeight(room);
  const set = (part: Partial<Range>) => setRanges({ ...ranges, [kind]: { ...range, ...part } });
  const length = (label: string, value: number, commit: (mm: number) => string | undefined) => (
    <LengthField label={label} unit={unit} value={value} commit={commit} />
  );
  return (
    <>
      <Choice label={t('Test piece')} value={kind} options={kinds} choose={setKind} />
      <div className="grid grid-cols-2 gap-1.5">
        {length(t('From'), range.from, (from) =>
          from < range.to ? void set({ from }) : t('Less than where it ends.'),
        )}
        {length(t('To'), range.to, (to) => (to > range.from ? void set({ to }) : t('More than where it begins.')))}
        {length(t('Each'), range.step, (step) => (step >= 0.005 ? void set({ step }) : t('At least 0.005 mm.')))}
        {kind === 'pins' &&
          length(t('Pin'), pin, (mm) => (mm >= 1 && mm <= 50 ? void setPin(mm) : t('From 1 to 50 mm.')))}
      </div>
      {kind !== 'kerf' && !kerfMm && (
        <p className="text-[12px] text-warn">
          {t('The kerf is not known: measure it first, or every opening comes out wider.')}
        </p>
      )}
      {!fits && (
        <p role="status" className="text-warn">
          {t('It is {{width}} wide, the sheet has {{room}}: choose fewer steps.', {
            width: formatLength(piece.width, unit),
            room: formatLength(boxWidth(room), unit),
          })}
        </p>
      )}
      <Button
        look="main"
        className="self-start"
        disabled={!fits || piece.steps.length < 2}
        onClick={() => void layPiece(actions, piece, material)}
      >
        {t('Lay it on the sheet')}
      </Button>
      <p className="text-[12px] text-quiet">{howTo[kind]}</p>
      <Suspense>
        <ReadPieceForm key={kind} measures={kind === 'kerf' ? 'kerf' : 'fit'} piece={piece} material={material} />
      </Suspense>
    </>
  );
}

function pieceOf(kind: Kind, { from, to, step }: Range, thickness: number, pin: number): TestPiece {
  const steps = stepsBetween(from, to, step);
  if (kind === 'kerf') return kerfComb(steps.filter((kerf) => kerf > 0 && kerf <= 2));
  return kind === 'slots' ? slotComb(thickness, steps) : pinRow(pin, steps);
}

/** Puts a test piece into the job, inside the sheet's margin, its labels scored. */
async function layPiece(actions: BenchActions, piece: TestPiece, { name, thicknessMm }: Material): Promise<void> {
  try {
    const { prepared } = actions.get();
    const sheet = jobOf(actions.get()).sheets[0];
    if (!sheet) return;
    const free = freeOnSheet(jobOf(actions.get()), machineOf(actions.get()), piece.width, piece.height);
    if (!free)
      toast.message(t('Nothing is free on the sheet: it lies over what is there. Move it, or lay another sheet.'));
    const room = roomOn(sheet, machineOf(actions.get()));
    const point = free ?? { x: room.minX, y: room.minY };
    const place = translation(point.x, point.y);
    const group: Group = {
      id: newId(),
      name: t('{{name}}, {{name2}} {{thicknessMm}} mm', { name: piece.name, name2: name.toLowerCase(), thicknessMm }),
      parentId: null,
    };
    const plain = { name: null, groupId: group.id, hidden: false, fillRule: 'nonzero' as const };
    const cut = drawnPaint(prepared.key, 'cut');
    const score = drawnPaint(prepared.key, labelOperation);
    const items: Item[] = [
      ...piece.cuts.map(
        ({ shape, keep }): Item => ({ ...plain, id: newId(), shape, matrix: place, ...cut, ...(keep ? { keep } : {}) }),
      ),
      ...(await wordItems(piece.labels, point, { ...score, groupId: group.id })),
    ];
    actions.edit(t('lay a {{name}}', { name: piece.name.toLowerCase() }), (job: JobDocument) =>
      addItems(job, items, [group]),
    );
    showItems(
      actions,
      items.map(({ id }) => id),
    );
  } catch (error) {
    toast.error(sentenceOf(error));
  }
}

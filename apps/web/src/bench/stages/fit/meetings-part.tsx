import { boundsOf, type FitName, type Item, type PartTie } from '@lambent/core/document';
import { addMeeting, makeMeeting, thicknessBy, thicknessUnder } from '@lambent/core/fit';
import { boxHeight, boxWidth } from '@lambent/core/geometry';
import { fitOf, type Material } from '@lambent/core/recipes';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { formatLength } from '../../../ui/figures.ts';
import { t } from '../../../words/words.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { newId } from '../../new-id.ts';
import { jobOf, unitOf } from '../../state/document.ts';
import { nameOf } from '../../thing-names.ts';

/** What is selected, and the fit it is to be given. */
export interface Chosen {
  chosen: readonly Item[];
  fit: FitName;
  material: Material | null;
}

type Role = PartTie['role'];

const roles: readonly { value: Role; make: string; mark: string }[] = [
  { value: 'pocket', make: t('Make a pocket for it'), mark: t('Make it the pocket for the other') },
  { value: 'insert', make: t('Make what goes into it'), mark: t('Make it go into the other') },
  { value: 'lid', make: t('Make a lid over it'), mark: t('Make it the lid over the other') },
];

const sayNothingLeft = () =>
  toast.message(t('Nothing would be left of it: the clearance is larger than the part. Nothing was changed.'));

/** One part is given what meets it; of two, either is made to meet the other. */
export function Meetings({ chosen, fit, material }: Chosen) {
  const job = useBench(jobOf);
  const materials = useBench((state) => state.shop.materials);
  const outlines = chosen.filter(({ shape }) => shape.kind !== 'picture');
  if (outlines.length === 0 || outlines.length > 2) return null;
  const clearanceMm = fitOf(material, fit).mm;
  const [first, second] = outlines;
  const thick = thicknessUnder(job, first, thicknessBy(materials));
  const tie = (role: Role): PartTie => ({ role, fit, clearanceMm });
  const able = roles.filter(({ value }) => value !== 'lid' || thick !== null);
  const props = { tie, able, thick: thick ?? 0 };
  if (!second) return <OfOne thing={first} {...props} />;
  return <OfTwo key={`${first.id} ${second.id}`} pair={[first, second]} {...props} />;
}

interface Meeting {
  tie: (role: Role) => PartTie;
  able: typeof roles;
  /** How thick the stock is, in mm. */
  thick: number;
}

function OfOne({ thing, tie, able, thick }: Meeting & { thing: Item }) {
  const actions = useBenchActions();
  const make = (role: Role) => {
    let made: string | null = null;
    actions.edit(t('a {{role}} for {{thing}}', { role, thing: nameOf(thing) }), (before) => {
      const added = addMeeting(before, thing.id, tie(role), thick, newId);
      made = added.id;
      return added.job;
    });
    if (made) actions.select([made]);
    else sayNothingLeft();
  };
  return (
    <div className="flex flex-col items-start gap-1.5">
      {able.map(({ value, make: words }) => (
        <Button key={value} onClick={() => make(value)}>
          {words}
        </Button>
      ))}
    </div>
  );
}

/** Which of the two is made to meet the other is chosen; at first the larger one is. */
function OfTwo({ pair, tie, able, thick }: Meeting & { pair: readonly [Item, Item] }) {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const areas = pair.map((item) => boxWidth(boundsOf(item)) * boxHeight(boundsOf(item)));
  const [changing, setChanging] = useState((areas[1] > areas[0] ? pair[1] : pair[0]).id);
  const [outline, thing] = changing === pair[1].id ? [pair[1], pair[0]] : pair;
  const mark = (role: Role) => {
    let isMade = false;
    actions.edit(t('{{outline}} meets {{thing}}', { outline: nameOf(outline), thing: nameOf(thing) }), (before) => {
      const after = makeMeeting(before, outline.id, thing.id, tie(role), thick);
      isMade = after !== before;
      return after;
    });
    if (!isMade) sayNothingLeft();
  };
  return (
    <section aria-label={t('How the two meet')} className="flex flex-col items-start gap-1.5">
      <h3 className="text-quiet">{t('What follows the other')}</h3>
      <Choice
        label={t('What follows')}
        value={changing}
        options={pair.map((item) => ({
          value: item.id,
          text: nameOf(item),
          aside: `${formatLength(boxWidth(boundsOf(item)), unit, { bare: true })} × ${formatLength(boxHeight(boundsOf(item)), unit)}`,
        }))}
        choose={(id) => {
          setChanging(id);
          actions.pointOut([id]);
        }}
      />
      <p className="text-[12px] text-quiet">
        {t('It takes the shape of the other, as wide as the fit says, where it lies now; and follows it from then on.')}
      </p>
      {able.map(({ value, mark: words }) => (
        <Button
          key={value}
          onPointerEnter={() => actions.pointOut([outline.id])}
          onPointerLeave={() => actions.pointOut([])}
          onClick={() => mark(value)}
        >
          {words}
        </Button>
      ))}
    </section>
  );
}

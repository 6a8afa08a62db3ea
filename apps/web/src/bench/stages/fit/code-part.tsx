import { type CodeSetting, type Item, type Shape, symbologies, symbologyNames } from '@lambent/core/document';
import { addItems, replaceShape } from '@lambent/core/edits';
import { boxHeight, boxOf, multiply, translation } from '@lambent/core/geometry';
import { useState } from 'react';
import { sentenceOf } from '../../../api.ts';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { formatLength } from '../../../ui/figures.ts';
import { LengthField } from '../../../ui/length-field.tsx';
import { Tick } from '../../../ui/tick.tsx';
import { said, t } from '../../../words/words.ts';
import { work } from '../../../workers/work.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { freeOnSheet } from '../../lay-on-sheet.ts';
import { newId } from '../../new-id.ts';
import { jobOf, machineOf, unitOf } from '../../state/document.ts';
import { drawnItem } from '../../tools/draw.ts';
import { Trouble } from './placing-fields.tsx';

type CodeItem = Item & { readonly shape: Extract<Shape, { kind: 'code' }> };

const isCode = (item: Item): item is CodeItem => item.shape.kind === 'code';

const firstCode: CodeSetting = { symbology: 'qr', words: '', width: 20, height: 8 };

/** A code that a camera or a scanner reads: a new one, or the one that is selected. */
export default function CodePart() {
  const selected = useBench((state) => {
    const [id, ...more] = state.selection;
    if (id === undefined || more.length > 0) return null;
    return jobOf(state).drawing.items.find((item) => item.id === id && isCode(item)) ?? null;
  });
  const code = selected && isCode(selected) ? selected : null;
  return <CodeForm key={code?.id ?? ''} item={code} />;
}

function CodeForm({ item }: { item: CodeItem | null }) {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const [code, setCode] = useState<CodeSetting>(item?.shape.code ?? firstCode);
  const [trouble, setTrouble] = useState<string | null>(null);
  const change = (part: Partial<CodeSetting>) => setCode({ ...code, ...part });
  const make = async () => {
    try {
      const shape = await work('makeCode', [code]);
      setTrouble(null);
      if (item) actions.edit(t('change a code'), (job) => replaceShape(job, item.id, [shape], newId));
      else lay(shape);
    } catch (error) {
      setTrouble(said(sentenceOf(error)));
    }
  };
  const lay = (shape: Shape) => {
    const state = actions.get();
    const height = code.symbology === 'code-128' ? code.height : code.width;
    const middle = boxOf(0, 0, machineOf(state).bedWidth, machineOf(state).bedHeight);
    const place = freeOnSheet(jobOf(state), machineOf(state), code.width, height) ?? {
      x: middle.maxX / 2,
      y: boxHeight(middle) / 2,
    };
    const drawn = drawnItem(actions, shape, 'engrave');
    const laid = {
      ...drawn,
      fillRule: 'nonzero' as const,
      matrix: multiply(translation(place.x, place.y), drawn.matrix),
    };
    actions.edit(t('add a code'), (job) => addItems(job, [laid]));
    actions.select([laid.id]);
  };
  return (
    <>
      <Choice
        label={t('Kind')}
        value={code.symbology}
        options={symbologies.map((value) => ({ value, text: symbologyNames[value] }))}
        choose={(symbology) => change({ symbology })}
      />
      <label className="flex flex-col gap-1">
        <span className="text-quiet">{t('It says')}</span>
        <textarea
          rows={2}
          value={code.words}
          placeholder={t('Words, an address, or a field such as {name}')}
          onChange={(event) => change({ words: event.target.value })}
          className="resize-y rounded-lg border border-line bg-raised px-2.5 py-1.5 focus:border-petrol focus:outline-none"
        />
      </label>
      <div className="grid grid-cols-2 gap-1.5">
        <LengthField
          label={t('Width')}
          unit={unit}
          value={code.width}
          within={[1, 2000]}
          layout="stack"
          commit={(width) => change({ width })}
        />
        {code.symbology === 'code-128' && (
          <LengthField
            label={t('Height')}
            unit={unit}
            value={code.height}
            within={[1, 2000]}
            layout="stack"
            commit={(height) => change({ height })}
          />
        )}
      </div>
      <p className="text-[12px] text-quiet">{t('With the quiet zone around it, which stays free.')}</p>
      <Tick checked={code.isLight === true} set={(isLight) => change({ isLight: isLight ? true : undefined })}>
        {t('burn its light parts: the stock is dark, and burns light')}
      </Tick>
      {item && (
        <p className="figures text-[12.5px]">
          {t('Its parts are {{module}} wide', { module: formatLength(item.shape.moduleMm, unit) })}
        </p>
      )}
      <Trouble words={trouble} />
      <Button look="main" className="self-start" disabled={code.words.trim() === ''} onClick={() => void make()}>
        {item ? t('Change the code') : t('Draw the code')}
      </Button>
    </>
  );
}

import {
  askedOf,
  type Builder,
  edgeNumbered,
  type Field,
  type Sources,
  straightEdges,
  type Trouble,
  usualNumbers,
} from '@lambent/core/builders';
import type { BuiltThing } from '@lambent/core/document';
import { emptyPath, identity } from '@lambent/core/geometry';
import { type LengthUnit, parseLengths } from '@lambent/core/units';
import { Fragment, type ReactNode } from 'react';
import { Button } from '../../../../ui/button.tsx';
import { Choice } from '../../../../ui/choice.tsx';
import { formatLength } from '../../../../ui/figures.ts';
import { LengthField } from '../../../../ui/length-field.tsx';
import { NumberField } from '../../../../ui/number-field.tsx';
import { Tick } from '../../../../ui/tick.tsx';
import { TypedField } from '../../../../ui/typed-field.tsx';
import { said, t } from '../../../../words/words.ts';
import { edgeWords } from './edge-words.ts';

export type Numbers = BuiltThing['numbers'];

interface Props {
  builder: Builder;
  numbers: Numbers;
  set: (field: string, value: Numbers[string]) => void;
  troubles: readonly Trouble[];
  unit: LengthUnit;
  /** How thick the stock is: asked for with the sizes. */
  stock: ReactNode;
  /** The outlines that edges are chosen of; null where there are none. */
  sources: Sources | null;
}

/** Fields that go two beside each other. */
const isNarrow: Readonly<Record<Field['kind'], boolean>> = {
  length: true,
  count: true,
  quantity: true,
  edge: false,
  lengths: false,
  choice: false,
  yes: false,
};

/** The numbers of a builder in its order, two beside each other, each with what is wrong with it. */
export function BuiltFields(props: Props) {
  const { builder, numbers, troubles, stock } = props;
  const usual = usualNumbers(builder.fields);
  const asked = askedOf(builder, numbers);
  // Beside the last of the sizes; first where there are none.
  const before = asked[asked.indexOf('height') + 1];
  return asked.map((name) => {
    const field = builder.fields[name];
    const wrong = troubles.filter((trouble) => trouble.field === name);
    const isWide = !isNarrow[field.kind] || wrong.length > 0;
    return (
      <Fragment key={name}>
        {name === before && <div>{stock}</div>}
        <div className={isWide ? 'col-span-2' : ''}>
          <OneField {...props} name={name} field={field} value={numbers[name] ?? usual[name]} />
          <TroubleList {...props} troubles={wrong} />
        </div>
      </Fragment>
    );
  });
}

function OneField({
  name,
  field,
  value,
  set,
  unit,
  sources,
}: Props & { name: string; field: Field; value: Numbers[string] }) {
  const label = said(field.label);
  const about = field.about && said(field.about);
  switch (field.kind) {
    case 'choice': {
      const options = Object.entries(field.options).map(([word, text]) => ({ value: word, text: said(text) }));
      return <Choice label={label} value={String(value)} options={options} choose={(word) => set(name, word)} />;
    }
    case 'edge': {
      const edges = straightEdges(sources?.outlines[field.outline]?.path ?? emptyPath);
      const place = sources?.places[field.outline] ?? identity;
      const longest = edgeNumbered(edges, 0);
      const options = edges.map((edge) => ({ value: String(edge.number), ...edgeWords(edge, place, unit) }));
      const first = { value: '0', text: t('Longest'), aside: longest ? formatLength(longest.lengthMm, unit) : '' };
      return (
        <Choice
          label={label}
          value={String(value)}
          options={[first, ...options]}
          choose={(number) => set(name, Number(number))}
        />
      );
    }
    case 'yes':
      return (
        <Tick checked={value === true} set={(checked) => set(name, checked)} title={about}>
          {label}
        </Tick>
      );
    case 'count': {
      const { least, most } = field;
      const take = (count: number) => set(name, count);
      return (
        <NumberField label={label} layout="stack" value={Number(value)} least={least} most={most} whole commit={take} />
      );
    }
    case 'quantity': {
      const { least, most } = field;
      const take = (size: number) => set(name, size);
      return (
        <NumberField
          label={label}
          layout="stack"
          value={Number(value)}
          unit={field.unit}
          least={least}
          most={most}
          commit={take}
        />
      );
    }
    case 'lengths':
      return (
        <TypedField
          label={t('{{label}}, parted by “;”', { label })}
          text={(value as readonly number[]).map((mm) => formatLength(mm, unit, { bare: true })).join('; ')}
          unit={unit}
          parse={(text) => parseLengths(text, unit)}
          isList
          commit={(list) => {
            set(name, list);
            return undefined;
          }}
        />
      );
    case 'length':
      return <LengthField label={label} value={Number(value)} unit={unit} commit={(mm) => set(name, mm)} />;
  }
}

/** What is wrong, and the nearest that can be, to be taken by a press. */
function TroubleList({ builder, troubles, set, unit }: Props) {
  return troubles.map(({ field, message, nearest }) => (
    <div key={field} role="alert" className="text-stop">
      <p>{message}</p>
      {nearest !== null && field in builder.fields && (
        <Button look="quiet" className="-ml-3" onClick={() => set(field, nearest)}>
          {t('Take {{kind}}', {
            kind: builder.fields[field].kind === 'length' ? formatLength(Number(nearest), unit) : nearest,
          })}
        </Button>
      )}
    </div>
  ));
}

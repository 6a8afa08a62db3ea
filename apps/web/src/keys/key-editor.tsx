import {
  type ColourKey,
  isBurnt,
  keyTroubles,
  type Layer,
  type Operation,
  operationNames,
  operations,
  type PaintPart,
  type Rule,
} from '@lambent/core';
import { ArrowDown, ArrowUp, Plus, Trash2 } from 'lucide-react';
import { type ReactNode, useMemo } from 'react';
import { Button, IconButton } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { LengthField } from '../ui/length-field.tsx';
import { NumberField } from '../ui/number-field.tsx';
import { OperationMark } from '../ui/operation-mark.tsx';
import { ColourField } from './colour-field.tsx';

interface Props {
  draft: ColourKey;
  change: (draft: ColourKey) => void;
}

/** A key's name, rules and layers. The first rule that fits a paint decides. */
export function KeyEditor({ draft, change }: Props) {
  const troubles = useMemo(() => keyTroubles(draft), [draft]);
  const setRule = (at: number, rule: Rule) =>
    change({ ...draft, rules: draft.rules.map((known, i) => (i === at ? rule : known)) });
  const move = (at: number, by: -1 | 1) => {
    const rules = [...draft.rules];
    [rules[at], rules[at + by]] = [rules[at + by], rules[at]];
    change({ ...draft, rules });
  };
  const add = () => {
    const layerId = draft.layers[0]?.id ?? 'cut';
    const rule: Rule = { part: 'stroke', colour: '#000000', tolerance: 1, minWidthMm: null, maxWidthMm: null, layerId };
    change({ ...draft, rules: [...draft.rules, rule] });
  };
  return (
    <>
      <input
        aria-label="Name of the key"
        value={draft.name}
        maxLength={120}
        onChange={(event) => change({ ...draft, name: event.target.value })}
        className="-ml-1 mb-3 w-full rounded border border-transparent bg-transparent px-1 text-xl font-bold hover:border-line focus:border-petrol focus:outline-none"
      />
      <div className="mb-4 flex items-end gap-3">
        <div className="w-[140px]">
          <LengthField
            label="Hairline (0: none)"
            unit="mm"
            value={draft.hairlineMm ?? 0}
            takes="not-below-0"
            commit={(mm) => change({ ...draft, hairlineMm: mm === 0 ? null : mm })}
          />
        </div>
        <p className="pb-1.5 text-[12px] text-quiet">
          Strokes wider than that, on a layer that engraves, burn as what they cover.
        </p>
      </div>
      <h2 className="mb-1.5 font-bold">Rules</h2>
      {troubles
        .filter(({ rule }) => rule === null)
        .map(({ message }) => (
          <p key={message} className="mb-2 text-warn">
            {message}
          </p>
        ))}
      <ol className="flex flex-col gap-2" aria-label="Rules">
        {draft.rules.map((rule, i) => (
          <li
            key={`${i} ${draft.rules.length}`}
            className="rounded-[10px] border border-line bg-raised p-2.5"
            aria-label={`Rule ${i + 1}`}
          >
            <RuleFields rule={rule} layers={draft.layers} change={(next) => setRule(i, next)}>
              <span className="figures w-5 shrink-0 text-right text-[12px] text-quiet">{i + 1}</span>
              <span className="ml-auto flex shrink-0">
                <IconButton
                  label={`Rule ${i + 1} earlier`}
                  className="size-7"
                  disabled={i === 0}
                  onClick={() => move(i, -1)}
                >
                  <ArrowUp size={14} aria-hidden />
                </IconButton>
                <IconButton
                  label={`Rule ${i + 1} later`}
                  className="size-7"
                  disabled={i === draft.rules.length - 1}
                  onClick={() => move(i, 1)}
                >
                  <ArrowDown size={14} aria-hidden />
                </IconButton>
                <IconButton
                  label={`Take rule ${i + 1} away`}
                  className="size-7"
                  onClick={() => change({ ...draft, rules: draft.rules.filter((_, k) => k !== i) })}
                >
                  <Trash2 size={14} aria-hidden />
                </IconButton>
              </span>
            </RuleFields>
            {troubles
              .filter(({ rule: at }) => at === i)
              .map(({ message }) => (
                <p key={message} role="alert" className="mt-1.5 text-[12px] text-warn">
                  {message}
                </p>
              ))}
          </li>
        ))}
      </ol>
      <Button className="mt-2" onClick={add}>
        <Plus size={15} aria-hidden />
        Another rule
      </Button>
      <KeyLayers draft={draft} change={change} />
    </>
  );
}

type Colouring = 'colour' | 'any' | 'grey';

/** One rule as a line: which half of a paint, its colour, how far off, its width, and the layer. */
function RuleFields(props: {
  rule: Rule;
  layers: readonly Layer[];
  change: (rule: Rule) => void;
  children: [ReactNode, ReactNode];
}) {
  const { rule, layers, change, children } = props;
  const colouring: Colouring = rule.grey ? 'grey' : rule.colour === null ? 'any' : 'colour';
  const [before, after] = children;
  return (
    <div className="flex gap-2">
      <span className="flex h-7 items-center">{before}</span>
      <div className="flex min-w-0 flex-1 flex-wrap items-center gap-x-1.5 gap-y-2">
        <Choice<PaintPart>
          label="Which half of a paint"
          look="chip"
          value={rule.part}
          options={[
            { value: 'stroke', text: 'Stroke' },
            { value: 'fill', text: 'Fill' },
          ]}
          choose={(part) =>
            change({ ...rule, part, ...(part === 'fill' ? { minWidthMm: null, maxWidthMm: null } : {}) })
          }
        />
        <Choice<Colouring>
          label="Which colours"
          look="chip"
          value={colouring}
          options={[
            { value: 'colour', text: 'of a colour' },
            { value: 'grey', text: 'of a grey' },
            { value: 'any', text: 'of any colour' },
          ]}
          choose={(kind) =>
            change({
              ...rule,
              colour: kind === 'colour' ? (rule.colour ?? '#000000') : null,
              grey: kind === 'grey' ? (rule.grey ?? { from: 0, to: 50 }) : null,
            })
          }
        />
        {colouring === 'colour' && rule.colour !== null && (
          <>
            <ColourField colour={rule.colour} change={(colour) => change({ ...rule, colour })} />
            <div className="w-[104px]" title="How far off a colour may be, as CIEDE2000: about 1 is just seen">
              <NumberField
                label="within"
                value={rule.tolerance}
                least={0}
                most={100}
                commit={(tolerance) => change({ ...rule, tolerance })}
              />
            </div>
          </>
        )}
        {rule.grey && <GreyRange grey={rule.grey} change={(grey) => change({ ...rule, grey })} />}
        {rule.part === 'stroke' && <Widths rule={rule} change={change} />}
        <span className="text-quiet" aria-hidden>
          →
        </span>
        <Choice
          label="Layer of the rule"
          look="chip"
          value={layers.some(({ id }) => id === rule.layerId) ? rule.layerId : null}
          options={layers.map(({ id, name, operation }) => ({
            value: id,
            text: name,
            mark: <OperationMark operation={operation} />,
          }))}
          choose={(layerId) => change({ ...rule, layerId })}
        />
      </div>
      {after}
    </div>
  );
}

function GreyRange(props: {
  grey: { from: number; to: number };
  change: (grey: { from: number; to: number }) => void;
}) {
  const { grey, change } = props;
  return (
    <span className="flex items-center gap-1.5" title="Lightness: 0 is black, 100 is white">
      <span
        className="h-5 w-10 rounded border border-line"
        style={{ background: `linear-gradient(90deg, lab(${grey.from}% 0 0), lab(${grey.to}% 0 0))` }}
        aria-hidden
      />
      <span className="w-[88px]">
        <NumberField
          label="from"
          value={grey.from}
          least={0}
          most={grey.to}
          commit={(from) => change({ ...grey, from })}
        />
      </span>
      <span className="w-[76px]">
        <NumberField label="to" value={grey.to} least={grey.from} most={100} commit={(to) => change({ ...grey, to })} />
      </span>
    </span>
  );
}

type Width = 'any' | 'up-to' | 'from' | 'between';

function Widths({ rule, change }: { rule: Rule; change: (rule: Rule) => void }) {
  const { minWidthMm: min, maxWidthMm: max } = rule;
  const kind: Width = min === null ? (max === null ? 'any' : 'up-to') : max === null ? 'from' : 'between';
  return (
    <>
      <Choice<Width>
        label="Which widths"
        look="chip"
        value={kind}
        options={[
          { value: 'any', text: 'any width' },
          { value: 'up-to', text: 'up to' },
          { value: 'from', text: 'wider than' },
          { value: 'between', text: 'between' },
        ]}
        choose={(next) =>
          change({
            ...rule,
            minWidthMm: next === 'from' || next === 'between' ? (min ?? 0.3) : null,
            maxWidthMm: next === 'up-to' || next === 'between' ? (max ?? Math.max(0.3, min ?? 0)) : null,
          })
        }
      />
      {min !== null && (
        <div className="w-[92px]">
          <LengthField
            label="Least width"
            bare
            layout="row"
            unit="mm"
            value={min}
            takes="not-below-0"
            commit={(mm) => {
              if (max !== null && mm > max) return `Not more than ${max} mm.`;
              change({ ...rule, minWidthMm: mm });
              return undefined;
            }}
          />
        </div>
      )}
      {max !== null && (
        <div className="w-[92px]">
          <LengthField
            label="Greatest width"
            bare
            layout="row"
            unit="mm"
            value={max}
            takes="not-below-0"
            commit={(mm) => {
              if (min !== null && mm < min) return `Not less than ${min} mm.`;
              change({ ...rule, maxWidthMm: mm });
              return undefined;
            }}
          />
        </div>
      )}
    </>
  );
}

/** The layers rules lead to: named, with what they burn with and where they stand in the order. */
function KeyLayers({ draft, change }: Props) {
  const set = (at: number, layer: Layer) =>
    change({ ...draft, layers: draft.layers.map((known, i) => (i === at ? layer : known)) });
  const add = (operation: Operation) => {
    const id = `layer-${crypto.randomUUID().slice(0, 8)}`;
    change({
      ...draft,
      layers: [...draft.layers, { id, name: `${operationNames[operation]} ${draft.layers.length}`, operation }],
    });
  };
  const used = new Set(draft.rules.map(({ layerId }) => layerId));
  return (
    <section className="mt-6">
      <h2 className="mb-1.5 font-bold">Layers</h2>
      <ul className="flex flex-col gap-1.5">
        {draft.layers.map((layer, i) => (
          <li
            key={layer.id}
            className="flex items-center gap-2 rounded-[10px] border border-line bg-raised px-2.5 py-1.5"
          >
            <OperationMark operation={layer.operation} />
            <input
              aria-label={`Name of layer ${i + 1}`}
              value={layer.name}
              maxLength={60}
              onChange={(event) => set(i, { ...layer, name: event.target.value })}
              className="min-w-0 flex-1 rounded border border-transparent bg-transparent px-1 font-semibold hover:border-line focus:border-petrol focus:outline-none"
            />
            {isBurnt(layer.operation) && (
              <>
                <div className="w-[150px]" title="The share of the recipe’s power that this layer burns with">
                  <NumberField
                    label="of its power"
                    unit="%"
                    value={(layer.powerShare ?? 1) * 100}
                    least={1}
                    most={100}
                    commit={(share) => {
                      const { powerShare: _, ...rest } = layer;
                      set(i, share === 100 ? rest : { ...rest, powerShare: share / 100 });
                    }}
                  />
                </div>
                <div className="w-[92px]" title="Its place among layers of its operation: lower ones burn first">
                  <NumberField
                    label="rank"
                    value={layer.rank ?? 0}
                    least={0}
                    most={99}
                    whole
                    commit={(rank) => {
                      const { rank: _, ...rest } = layer;
                      set(i, rank === 0 ? rest : { ...rest, rank });
                    }}
                  />
                </div>
              </>
            )}
            <IconButton
              label={used.has(layer.id) ? `${layer.name} has rules` : `Take ${layer.name} away`}
              className="size-7"
              disabled={used.has(layer.id)}
              onClick={() => change({ ...draft, layers: draft.layers.filter(({ id }) => id !== layer.id) })}
            >
              <Trash2 size={14} aria-hidden />
            </IconButton>
          </li>
        ))}
      </ul>
      <div className="mt-2">
        <Choice<Operation>
          label="Another layer"
          look="chip"
          value={null}
          empty="Another layer"
          icon={<Plus size={14} aria-hidden />}
          options={operations.map((operation) => ({
            value: operation,
            text: operationNames[operation],
            mark: <OperationMark operation={operation} />,
          }))}
          choose={add}
        />
      </div>
    </section>
  );
}

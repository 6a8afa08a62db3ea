import type { JobDocument, LayerBurning, LineOrder } from '@lambent/core/document';
import { clearNumbers, clearTabs, setBurning } from '@lambent/core/edits';
import { burnsPictures, fillsAreas, separates } from '@lambent/core/operations';
import type { PreparedLayer } from '@lambent/core/plan';
import { Button } from '../../ui/button.tsx';
import { Choice, type Option } from '../../ui/choice.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { t } from '../../words/words.ts';
import { useBench, useBenchActions } from '../context.ts';
import { jobOf } from '../state/document.ts';
import { chooseTool } from '../tools/choose.ts';
import type { AskingToolName } from '../tools/tool.ts';

const orders: readonly Option<LineOrder>[] = [
  { value: 'inside-first', text: t('Inside first, then nearest') },
  { value: 'nearest', text: t('Nearest whose inside is done') },
  { value: 'parts', text: t('Part by part') },
  { value: 'rows', text: t('In rows, there and back') },
  { value: 'spread', text: t('Spread, so that it stays cool') },
  { value: 'as-drawn', text: t('As drawn') },
  { value: 'by-hand', text: t('By hand, numbered') },
];

const depthSteps = [
  { value: 'off', text: t('One power for all') },
  { value: '2', text: t('Power by grey, 2 steps') },
  { value: '3', text: t('Power by grey, 3 steps') },
  { value: '5', text: t('Power by grey, 5 steps') },
  { value: 'smooth', text: t('Power by grey, without steps') },
] as const;

/** How a layer is filled, and in which order and direction its lines burn. */
export function LayerBurningFields({ prepared, done }: { prepared: PreparedLayer; done: () => void }) {
  const actions = useBenchActions();
  const { layer, burning } = prepared;
  const change = (part: Partial<LayerBurning>, what: string) =>
    actions.edit(t('{{what}} of {{name}}', { what, name: layer.name }), (job) => setBurning(job, layer.id, part));
  if (burnsPictures(layer.operation)) return <FillRuleField burning={burning} change={change} />;
  if (fillsAreas(layer.operation)) return <FillFields burning={burning} change={change} />;
  return (
    <>
      <Choice
        label={t('Line order')}
        value={burning.order}
        options={orders}
        choose={(order) => change({ order }, 'order')}
      />
      {burning.order === 'by-hand' && <Numbering done={done} />}
      <Choice
        label={t('Way round')}
        value={burning.direction}
        options={[
          { value: 'either' as const, text: t('Either way') },
          { value: 'clockwise' as const, text: t('Clockwise') },
          { value: 'anticlockwise' as const, text: t('Anticlockwise') },
        ]}
        choose={(direction) => change({ direction }, 'direction')}
      />
      <div className="flex items-center gap-1.5">
        <div className="min-w-0 flex-1">
          <Choice
            label={t('Outlines start')}
            value={burning.start}
            options={[
              { value: 'nearest' as const, text: t('Nearest') },
              { value: 'corner' as const, text: t('At a corner') },
            ]}
            choose={(start) => change({ start }, 'start')}
          />
        </div>
        <Button
          title={t('Click outlines where they are to start')}
          onClick={() => {
            chooseTool(actions, 'start');
            done();
          }}
        >
          {t('Choose')}
        </Button>
      </div>
      {separates(layer.operation) && (
        <Choice
          label={t('Shared edges')}
          value={burning.sharedEdges}
          options={[
            { value: 'each' as const, text: t('Cut by each part') },
            { value: 'once' as const, text: t('Cut once') },
          ]}
          choose={(sharedEdges) => change({ sharedEdges }, t('shared edges'))}
        />
      )}
      {separates(layer.operation) && <Tabs done={done} />}
    </>
  );
}

function Tabs({ done }: { done: () => void }) {
  const placed = useBench((state) => jobOf(state).tabs);
  const count = placed.reduce((sum, { at }) => sum + at.length, 0);
  return (
    <ByClicks
      tool="tabs"
      text={t('Place tabs')}
      title={t('Click outlines where a tab is to hold them, and drag tabs along')}
      takeBack={placed.length === 0 ? null : count === 0 ? t('As the layer says') : t('Take {{count}} back', { count })}
      name={t('place tabs as usual')}
      edit={clearTabs}
      done={done}
    />
  );
}

function Numbering({ done }: { done: () => void }) {
  const count = useBench((state) => jobOf(state).numbered.length);
  return (
    <ByClicks
      tool="number"
      text={t('Number by clicking')}
      takeBack={count > 0 ? t('Take {{count}} back', { count }) : null}
      name={t('take the numbers back')}
      edit={clearNumbers}
      done={done}
    />
  );
}

/** What is said by clicks on the bed, and can be taken back: a tool for it, and what stands on the way back. */
function ByClicks(props: {
  tool: AskingToolName;
  text: string;
  title?: string;
  takeBack: string | null;
  name: string;
  edit: (job: JobDocument) => JobDocument;
  done: () => void;
}) {
  const { tool, text, title, takeBack, name, edit, done } = props;
  const actions = useBenchActions();
  return (
    <div className="flex items-center gap-1.5">
      <Button
        title={title}
        onClick={() => {
          chooseTool(actions, tool);
          done();
        }}
      >
        {text}
      </Button>
      {takeBack && (
        <Button look="quiet" onClick={() => actions.edit(name, edit)}>
          {takeBack}
        </Button>
      )}
    </div>
  );
}

interface FillFieldProps {
  burning: LayerBurning;
  change: (part: Partial<LayerBurning>, what: string) => void;
}

function FillRuleField({ burning, change }: FillFieldProps) {
  return (
    <Choice
      label={t('Shape in a shape')}
      value={burning.fillRule}
      options={[
        { value: 'even-odd' as const, text: t('Is a hole') },
        { value: 'as-drawn' as const, text: t('As its file says') },
      ]}
      choose={(fillRule) => change({ fillRule }, 'fill')}
    />
  );
}

function FillFields({ burning, change }: FillFieldProps) {
  const { depth } = burning;
  const chosen = depth === null ? 'off' : depth.steps === null ? 'smooth' : String(depth.steps);
  return (
    <>
      <FillRuleField burning={burning} change={change} />
      <Choice
        label={t('Overlaps')}
        value={burning.overlaps}
        options={[
          { value: 'cancel' as const, text: t('Cancel out') },
          { value: 'unite' as const, text: t('Unite') },
        ]}
        choose={(overlaps) => change({ overlaps }, 'overlaps')}
      />
      <Choice
        label={t('Thin parts')}
        value={burning.thinParts}
        options={[
          { value: 'skip' as const, text: t('Only where a scan line is') },
          { value: 'line' as const, text: t('Get a line of their own') },
        ]}
        choose={(thinParts) => change({ thinParts }, t('thin parts'))}
      />
      <Choice
        label={t('Scan angle')}
        value={burning.scanTurns}
        options={[
          { value: 'same' as const, text: t('One for all') },
          { value: 'sooner' as const, text: t('The quickest for each piece') },
        ]}
        choose={(scanTurns) => change({ scanTurns }, t('angle of scan lines'))}
      />
      <Choice
        label={t('Depth by grey')}
        value={chosen}
        options={depthSteps}
        choose={(value) =>
          change(
            {
              depth:
                value === 'off'
                  ? null
                  : { steps: value === 'smooth' ? null : Number(value), lightest: depth?.lightest ?? 0.2 },
            },
            'depth',
          )
        }
      />
      {depth && (
        <NumberField
          label={t('White burns with')}
          unit={t('% of it')}
          value={depth.lightest * 100}
          least={0}
          most={100}
          commit={(share) => change({ depth: { ...depth, lightest: share / 100 } }, 'depth')}
        />
      )}
    </>
  );
}

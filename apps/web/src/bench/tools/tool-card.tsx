import { fromMachine, toMachine } from '@lambent/core/machine';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { LengthField } from '../../ui/length-field.tsx';
import { t } from '../../words/words.ts';
import { useBench } from '../context.ts';
import { machineOf, unitOf } from '../state/document.ts';
import { Card, useOptions } from './card-frame.tsx';
import { CornerTool } from './corner-tool.ts';
import { DrawCard } from './draw-card.tsx';
import { PointsTool } from './points-tool.ts';
import { TextCard } from './text-card.tsx';
import type { Tool } from './tool.ts';

/** What can be set for the tool at hand; floats above the dock. */
export function ToolCard() {
  const tool = useBench((state) => state.tool);
  const writing = useBench((state) => state.textEdit !== null);
  // The points that are chosen are the tool's own; the draft is put anew with every change of them.
  useBench((state) => state.draft);
  if (writing) return <TextCard />;
  if (!tool) return null;
  switch (tool.name) {
    case 'pick':
    case 'place':
    case 'why':
    case 'number':
    case 'start':
    case 'tabs':
      return null;
    case 'dimension':
      return <DimensionCard />;
    case 'points':
      return tool instanceof PointsTool ? <PointsCard tool={tool} /> : null;
    case 'stretch':
      return <StretchCard />;
    case 'corner':
      return <CornerCard tool={tool} />;
    default:
      return <DrawCard name={tool.name} />;
  }
}

const stretches = [
  { value: 'trim', text: t('Trim'), aside: t('to the next crossings') },
  { value: 'extend', text: t('Lengthen'), aside: t('to the next crossing') },
  { value: 'split', text: t('Split'), aside: t('at a point') },
] as const;

function StretchCard() {
  const [options, change] = useOptions();
  return (
    <Card label={t('What a click on a line does')}>
      <Choice
        label={t('A click on a line')}
        value={options.stretch}
        look="chip"
        options={stretches}
        choose={(stretch) => change({ stretch })}
      />
      <span className="text-quiet">{stretches.find(({ value }) => value === options.stretch)?.aside}</span>
    </Card>
  );
}

function CornerCard({ tool }: { tool: Tool }) {
  const [options, change] = useOptions();
  const selected = useBench((state) => state.selection.size);
  const unit = useBench(unitOf);
  return (
    <Card label={t('How corners are shaped')}>
      <Choice
        label={t('Corners are')}
        look="chip"
        value={options.corner}
        options={[
          { value: 'round' as const, text: t('Rounded') },
          { value: 'cut' as const, text: t('Cut off') },
        ]}
        choose={(corner) => change({ corner })}
      />
      <div className="w-[128px]">
        <LengthField
          label={options.corner === 'round' ? t('Radius') : t('By')}
          layout="row"
          unit={unit}
          value={options.cornerSize}
          takes="not-below-0"
          commit={(cornerSize) => change({ cornerSize })}
        />
      </div>
      {tool instanceof CornerTool && selected > 0 && (
        <Button look="quiet" onClick={() => tool.shapeAll()}>
          {t('All of the selection')}
        </Button>
      )}
      <span className="text-quiet">{t('Click corners, or two lines that are to meet; 0 is sharp.')}</span>
    </Card>
  );
}

const axes = [
  { value: 'straight', text: t('Straight'), aside: t('from point to point') },
  { value: 'x', text: t('Across') },
  { value: 'y', text: t('Up and down') },
] as const;

function DimensionCard() {
  const [options, change] = useOptions();
  return (
    <Card label={t('What is measured')}>
      <Choice
        label={t('What is measured')}
        look="chip"
        value={options.dimension}
        options={axes}
        choose={(dimension) => change({ dimension })}
      />
      <span className="text-quiet">{t('Click two points, or one edge; then where the figure goes.')}</span>
    </Card>
  );
}

function PointsCard({ tool }: { tool: PointsTool }) {
  const unit = useBench(unitOf);
  const machine = useBench(machineOf);
  const item = tool.item;
  const [first] = tool.selected;
  const node = first && tool.lines[first.line]?.nodes[first.node];
  if (!item) return <Card label={t('Points')}>{t('Click a line to see its points.')}</Card>;
  if (!node) return <Card label={t('Points')}>{t('Drag points and handles; a double click adds one.')}</Card>;
  const many = tool.selected.length > 1;
  const here = toMachine(machine, node.x, node.y);
  /** Places are typed as the machine counts them. */
  const put = (x: number, y: number) => {
    const to = fromMachine(machine, x, y);
    tool.placeAt(to.x, to.y);
    return undefined;
  };
  return (
    <Card label={t('Points')}>
      {many ? (
        <>
          <span>{t('{{selected}} points', { selected: tool.selected.length })}</span>
          <Button look="quiet" onClick={() => tool.align('x')}>
            {t('In a column')}
          </Button>
          <Button look="quiet" onClick={() => tool.align('y')}>
            {t('In a row')}
          </Button>
        </>
      ) : (
        <>
          <div className="w-[112px]">
            <LengthField label="X" layout="row" unit={unit} value={here.x} commit={(x) => put(x, here.y)} />
          </div>
          <div className="w-[112px]">
            <LengthField label="Y" layout="row" unit={unit} value={here.y} commit={(y) => put(here.x, y)} />
          </div>
          <Button look="quiet" onClick={() => tool.break()}>
            {t('Break')}
          </Button>
        </>
      )}
      {many && (
        <Button look="quiet" title={t('Makes the edges between them straight')} onClick={() => tool.straighten()}>
          {t('Straighten')}
        </Button>
      )}
      <Button look="quiet" onClick={() => tool.smooth()}>
        {t('Smooth')}
      </Button>
      <Button look="quiet" onClick={() => tool.sharpen()}>
        {t('Corner')}
      </Button>
      <Button look="quiet" onClick={() => tool.remove()}>
        {t('Delete')}
      </Button>
    </Card>
  );
}

import { fromMachine, toMachine } from '@lambent/core/machine';
import { isBurnt, type Operation, operationOf, operations } from '@lambent/core/operations';
import type { ReactNode } from 'react';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { LengthField } from '../../ui/length-field.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { OperationMark } from '../../ui/operation-mark.tsx';
import { Tick } from '../../ui/tick.tsx';
import { useBench, useBenchActions } from '../context.ts';
import { machineOf, unitOf } from '../state/document.ts';
import { CornerTool } from './corner-tool.ts';
import { PointsTool } from './points-tool.ts';
import { TextCard } from './text-card.tsx';
import type { Tool } from './tool.ts';
import { toolLooks } from './tool-looks.ts';
import type { ToolOptions } from './tool-options.ts';

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

function Card({ label, children }: { label: string; children: ReactNode }) {
  return (
    <section
      aria-label={label}
      className="flex items-center gap-2.5 rounded-xl border border-line bg-paper px-3 py-1.5 shadow-float"
    >
      {children}
    </section>
  );
}

function useOptions(): [ToolOptions, (change: Partial<ToolOptions>) => void] {
  const actions = useBenchActions();
  const options = useBench((state) => state.toolOptions);
  return [options, actions.setToolOptions];
}

function DrawCard({ name }: { name: keyof typeof toolLooks }) {
  const [options, change] = useOptions();
  const unit = useBench(unitOf);
  const centred = name === 'rectangle' || name === 'ellipse' || name === 'slot';
  return (
    <Card label={`${toolLooks[name].text}: how it is drawn`}>
      <Choice<Operation>
        label="Drawn to be"
        look="chip"
        value={options.operation}
        options={operations.map((value) => ({
          value,
          text: operationOf(value).name,
          aside: isBurnt(value) ? undefined : 'never burnt',
          mark: <OperationMark operation={value} />,
        }))}
        choose={(operation) => change({ operation })}
      />
      {centred && (
        <label className="flex items-center gap-1.5 whitespace-nowrap">
          <input
            type="checkbox"
            checked={options.centred}
            onChange={(event) => change({ centred: event.target.checked })}
          />
          from the centre
        </label>
      )}
      {name === 'rectangle' && (
        <div className="w-[180px]">
          <LengthField
            label="Corner radius"
            layout="row"
            unit={unit}
            value={options.radius}
            takes="not-below-0"
            commit={(radius) => change({ radius })}
          />
        </div>
      )}
      {name === 'slot' && (
        <div className="w-[124px]">
          <LengthField
            label="Width"
            layout="row"
            unit={unit}
            value={options.slotWidth}
            takes="more-than-0"
            commit={(slotWidth) => change({ slotWidth })}
          />
        </div>
      )}
      {name === 'polygon' && (
        <>
          <div className="w-[104px]">
            <NumberField
              label={options.star ? 'Tips' : 'Sides'}
              value={options.sides}
              least={3}
              most={100}
              whole
              commit={(sides) => change({ sides })}
            />
          </div>
          <Tick checked={options.star} set={(checked) => change({ star: checked })}>
            star
          </Tick>
          {options.star && (
            <div className="w-[118px]">
              <NumberField
                label="Depth"
                unit="%"
                value={options.starDepth}
                least={1}
                most={99}
                commit={(starDepth) => change({ starDepth })}
              />
            </div>
          )}
        </>
      )}
      {name === 'freehand' && (
        <div className="w-[140px]">
          <LengthField
            label="Smooth"
            layout="row"
            unit={unit}
            value={options.smoothing}
            takes="more-than-0"
            commit={(smoothing) => change({ smoothing })}
          />
        </div>
      )}
      {(name === 'line' || name === 'slot' || name === 'polygon') && (
        <div className="w-[128px]">
          <NumberField
            label="⇧ steps"
            unit="°"
            value={options.angleStep}
            least={0.1}
            most={180}
            commit={(angleStep) => change({ angleStep })}
          />
        </div>
      )}
    </Card>
  );
}

const stretches = [
  { value: 'trim', text: 'Trim', aside: 'to the next crossings' },
  { value: 'extend', text: 'Lengthen', aside: 'to the next crossing' },
  { value: 'split', text: 'Split', aside: 'at a point' },
] as const;

function StretchCard() {
  const [options, change] = useOptions();
  return (
    <Card label="What a click on a line does">
      <Choice
        label="A click on a line"
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
    <Card label="How corners are shaped">
      <Choice
        label="Corners are"
        look="chip"
        value={options.corner}
        options={[
          { value: 'round' as const, text: 'Rounded' },
          { value: 'cut' as const, text: 'Cut off' },
        ]}
        choose={(corner) => change({ corner })}
      />
      <div className="w-[128px]">
        <LengthField
          label={options.corner === 'round' ? 'Radius' : 'By'}
          layout="row"
          unit={unit}
          value={options.cornerSize}
          takes="not-below-0"
          commit={(cornerSize) => change({ cornerSize })}
        />
      </div>
      {tool instanceof CornerTool && selected > 0 && (
        <Button look="quiet" onClick={() => tool.shapeAll()}>
          All of the selection
        </Button>
      )}
      <span className="text-quiet">Click corners, or two lines that are to meet; 0 is sharp.</span>
    </Card>
  );
}

const axes = [
  { value: 'straight', text: 'Straight', aside: 'from point to point' },
  { value: 'x', text: 'Across' },
  { value: 'y', text: 'Up and down' },
] as const;

function DimensionCard() {
  const [options, change] = useOptions();
  return (
    <Card label="What is measured">
      <Choice
        label="What is measured"
        look="chip"
        value={options.dimension}
        options={axes}
        choose={(dimension) => change({ dimension })}
      />
      <span className="text-quiet">Click two points, or one edge; then where the figure goes.</span>
    </Card>
  );
}

function PointsCard({ tool }: { tool: PointsTool }) {
  const unit = useBench(unitOf);
  const machine = useBench(machineOf);
  const item = tool.item;
  const [first] = tool.selected;
  const node = first && tool.lines[first.line]?.nodes[first.node];
  if (!item) return <Card label="Points">Click a line to see its points.</Card>;
  if (!node) return <Card label="Points">Drag points and handles; a double click adds one.</Card>;
  const many = tool.selected.length > 1;
  const here = toMachine(machine, node.x, node.y);
  /** Places are typed as the machine counts them. */
  const put = (x: number, y: number) => {
    const to = fromMachine(machine, x, y);
    tool.placeAt(to.x, to.y);
    return undefined;
  };
  return (
    <Card label="Points">
      {many ? (
        <>
          <span>{tool.selected.length} points</span>
          <Button look="quiet" onClick={() => tool.align('x')}>
            In a column
          </Button>
          <Button look="quiet" onClick={() => tool.align('y')}>
            In a row
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
            Break
          </Button>
        </>
      )}
      {many && (
        <Button look="quiet" title="Makes the edges between them straight" onClick={() => tool.straighten()}>
          Straighten
        </Button>
      )}
      <Button look="quiet" onClick={() => tool.smooth()}>
        Smooth
      </Button>
      <Button look="quiet" onClick={() => tool.sharpen()}>
        Corner
      </Button>
      <Button look="quiet" onClick={() => tool.remove()}>
        Delete
      </Button>
    </Card>
  );
}

import { type Item, type TraceSettings, usualTraceSettings } from '@lambent/core/document';
import { hideItems } from '@lambent/core/edits';
import { addFollowing, changeTraced } from '@lambent/core/fit';
import { flatten, meanScale, nodeCount, type Path, subpathsOf, transformPath } from '@lambent/core/geometry';
import { labelOperation, separates } from '@lambent/core/operations';
import { useEffect, useMemo, useState } from 'react';
import { Button } from '../../../../ui/button.tsx';
import { Choice } from '../../../../ui/choice.tsx';
import { OperationMark } from '../../../../ui/operation-mark.tsx';
import { work } from '../../../../workers/work.ts';
import { useBench, useBenchActions } from '../../../context.ts';
import { newId } from '../../../tools/draw.ts';
import { SlowStop, Trouble } from '../../fit/placing-fields.tsx';
import { useWorked } from '../../fit/use-worked.ts';
import { AreaFields } from './area-fields.tsx';
import { FigureFields, LineFields } from './outline-fields.tsx';
import { changeOutlines } from './picture-use.ts';

/** A picture of more pixels is looked at in a reduced one first. */
const mostQuickPixels = 400_000;

/** What becomes of the picture. */
type Fate = 'hidden' | 'stays';

/**
 * Makes outlines of what a picture shows.
 * @param traced outlines that were made of it, where those are to be changed
 */
export function OutlinesPart({ picture, traced }: { picture: Item; traced: Item | null }) {
  const known = traced?.shape.kind === 'traced' ? traced.shape.settings : null;
  const [settings, setSettings] = useState<TraceSettings>(
    () => known ?? { ...usualTraceSettings, part: croppedPart(picture) },
  );
  const { found, working, share, trouble, stop } = useOutlines(picture, settings);
  const [sketch, setSketch] = useState<Path | null>(null);
  const set = (changed: Partial<TraceSettings>) => setSettings((before) => ({ ...before, ...changed }));
  useShown(picture, found, sketch);
  const path = working ? null : found;
  return (
    <>
      <div data-scrolls className="relative flex min-h-0 flex-1 flex-col gap-3.5 overflow-y-auto px-3.5 pb-4">
        <FigureFields settings={settings} set={set} />
        <AreaFields picture={picture} settings={settings} change={setSettings} sketch={setSketch} />
        <LineFields settings={settings} set={set} />
      </div>
      <div className="flex flex-col gap-1.5 border-t border-line px-3.5 py-3">
        {found && !working && <Count path={found} makes={settings.makes} />}
        {working && <SlowStop share={share} stop={stop} />}
        <Trouble words={trouble} />
        {traced ? (
          <Change traced={traced} picture={picture} settings={settings} path={path} />
        ) : (
          <Make picture={picture} settings={settings} path={path} />
        )}
      </div>
    </>
  );
}

/** The corners of what a picture is cropped to, in its pixels; none where all of it counts. */
function croppedPart({ shape }: Item): TraceSettings['part'] {
  if (shape.kind !== 'picture' || !shape.crop) return [];
  const [{ points } = { points: [] }] = flatten(shape.crop, 0.25).toSorted((a, b) => b.points.length - a.points.length);
  return Array.from({ length: points.length / 2 }, (_, i) => ({ x: points[2 * i], y: points[2 * i + 1] }));
}

/** The outlines in the picture's pixels: a quick look while the true ones are found. */
function useOutlines(picture: Item, settings: TraceSettings) {
  const { shape, matrix } = picture;
  const pictureId = shape.kind === 'picture' ? shape.pictureId : '';
  const isLarge = shape.kind === 'picture' && shape.width * shape.height > mostQuickPixels;
  const mm = meanScale(matrix);
  const askQuickly = useMemo(
    () => (isLarge ? () => work('outlines', [pictureId, settings, mm, mostQuickPixels]) : null),
    [isLarge, pictureId, settings, mm],
  );
  const ask = useMemo(() => () => work('outlines', [pictureId, settings, mm, null]), [pictureId, settings, mm]);
  const quick = useWorked<Path>(askQuickly);
  const whole = useWorked<Path>(ask);
  return { ...whole, found: whole.working && quick.answer ? quick.answer : whole.answer };
}

/** Shows on the bed what is found, and what is being cropped or rubbed out. */
function useShown({ matrix }: Item, found: Path | null, sketch: Path | null): void {
  const actions = useBenchActions();
  const outline = useMemo(() => found && transformPath(found, matrix), [found, matrix]);
  useEffect(() => {
    actions.showDraft(outline || sketch ? { outline, gone: sketch } : null);
    return () => actions.showDraft(null);
  }, [actions, outline, sketch]);
}

function Count({ path, makes }: { path: Path } & Pick<TraceSettings, 'makes'>) {
  const count = useMemo(() => [...subpathsOf(path)].length, [path]);
  const word = makes === 'outlines' ? 'outline' : 'line';
  return (
    <p role="status" className={count === 0 ? 'text-warn' : 'figures text-quiet'}>
      {count === 0
        ? `No ${word} is found: choose another level, or the other figure.`
        : `${count} ${word}${count === 1 ? '' : 's'}, ${nodeCount(path)} points`}
    </p>
  );
}

interface FoundProps {
  picture: Item;
  settings: TraceSettings;
  /** The outlines in the picture's pixels; null while they are not known. */
  path: Path | null;
}

/** Puts what is found on a layer. */
function Make({ picture, settings, path }: FoundProps) {
  const actions = useBenchActions();
  const layers = useBench(({ prepared }) => prepared.meaning.layers);
  const isAround = settings.makes === 'outlines';
  // Outlines are mostly cut, and single lines scored.
  const usual = layers.find(({ operation }) => (isAround ? separates(operation) : operation === labelOperation));
  const [chosen, setChosen] = useState<string | null>(null);
  const [fate, setFate] = useState<Fate>('hidden');
  const layerId = chosen ?? usual?.id ?? layers[0]?.id ?? null;
  const make = (found: Path) => {
    let ids: string[] = [];
    actions.edit('make outlines of a picture', (job) => {
      const made = {
        kind: 'traced' as const,
        sources: [picture] as const,
        settings,
        path: transformPath(found, picture.matrix),
      };
      const added = addFollowing(job, [made], { layerId, fate: 'stays', guideId: null, follows: true, newId });
      ids = added.ids;
      return fate === 'hidden' ? hideItems(added.job, new Set([picture.id]), true) : added.job;
    });
    actions.select(ids);
  };
  return (
    <>
      <Choice
        label="Onto the layer"
        value={layerId}
        options={layers.map(({ id, name, operation }) => ({
          value: id,
          text: `Onto ${name}`,
          mark: <OperationMark operation={operation} />,
        }))}
        choose={setChosen}
      />
      <Choice<Fate>
        label="The picture"
        value={fate}
        options={[
          { value: 'hidden', text: 'The picture is hidden' },
          { value: 'stays', text: 'The picture stays beside them' },
        ]}
        choose={setFate}
      />
      <Button look="main" disabled={!path || path.verbs.length === 0} onClick={() => path && make(path)}>
        Make the {isAround ? 'outlines' : 'lines'}
      </Button>
    </>
  );
}

/** Takes what is found in place of the outlines that were made before; what follows those goes along. */
function Change({ traced, picture, settings, path }: FoundProps & { traced: Item }) {
  const actions = useBenchActions();
  const known = traced.shape.kind === 'traced' ? traced.shape.settings : null;
  const change = (found: Path) => {
    actions.edit('find outlines otherwise', (job) => changeTraced(job, traced.id, settings, found, picture));
    changeOutlines(null);
  };
  return (
    <Button
      look="main"
      disabled={!path || path.verbs.length === 0 || settings === known}
      onClick={() => path && change(path)}
    >
      Change the outlines
    </Button>
  );
}

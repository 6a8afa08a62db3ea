import { type Item, type TraceSettings, usualByColour, usualTraceSettings } from '@lambent/core/document';
import { hideItems } from '@lambent/core/edits';
import { addFollowing, changeTraced } from '@lambent/core/fit';
import {
  appendPath,
  flatten,
  meanScale,
  nodeCount,
  type Path,
  PathBuilder,
  subpathsOf,
  transformPath,
} from '@lambent/core/geometry';
import { labelOperation, separates } from '@lambent/core/operations';
import type { TracedPath } from '@lambent/core/pictures/trace';
import { useEffect, useMemo, useState } from 'react';
import { inSentence } from '../../../../stores/numbers.ts';
import { Button } from '../../../../ui/button.tsx';
import { Choice } from '../../../../ui/choice.tsx';
import { counted } from '../../../../ui/counted.ts';
import { OperationMark } from '../../../../ui/operation-mark.tsx';
import { t } from '../../../../words/words.ts';
import { work } from '../../../../workers/work.ts';
import { useBenchActions } from '../../../context.ts';
import { newId } from '../../../new-id.ts';
import { useOwnLayers } from '../../../use-own-layers.ts';
import { SlowStop, Trouble } from '../../fit/placing-fields.tsx';
import { useWorked } from '../../fit/use-worked.ts';
import { AreaFields } from './area-fields.tsx';
import { FigureFields, LineFields } from './outline-fields.tsx';
import { changeOutlines } from './picture-use.ts';

/** A picture of more pixels is looked at in a reduced one first. */
const mostQuickPixels = 200_000;

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
  const settled = working ? null : found;
  return (
    <>
      <div data-scrolls className="relative flex min-h-0 flex-1 flex-col gap-3.5 overflow-y-auto px-3.5 pb-4">
        <FigureFields settings={settings} set={set} />
        <AreaFields picture={picture} settings={settings} change={setSettings} sketch={setSketch} />
        <LineFields settings={settings} set={set} />
      </div>
      <div className="flex flex-col gap-1.5 border-t border-line px-3.5 py-3">
        {settled && <Count found={settled} picture={picture} makes={settings.makes} />}
        {working && <SlowStop share={share} stop={stop} />}
        <Trouble words={trouble} />
        {traced ? (
          <Change traced={traced} picture={picture} settings={settings} found={settled} />
        ) : (
          <Make picture={picture} settings={settings} found={settled} />
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
  const quick = useWorked<TracedPath[]>(askQuickly);
  const whole = useWorked<TracedPath[]>(ask);
  return { ...whole, found: whole.working && quick.answer ? quick.answer : whole.answer };
}

/** Shows on the bed what is found, and what is being cropped or rubbed out. */
function useShown({ matrix }: Item, found: readonly TracedPath[] | null, sketch: Path | null): void {
  const actions = useBenchActions();
  const outline = useMemo(() => found && transformPath(together(found), matrix), [found, matrix]);
  useEffect(() => {
    actions.showDraft(outline || sketch ? { outline, gone: sketch } : null);
    return () => actions.showDraft(null);
  }, [actions, outline, sketch]);
}

/** Everything that was found as one path. */
function together(found: readonly TracedPath[]): Path {
  const builder = new PathBuilder();
  for (const { path } of found) appendPath(builder, path, true);
  return builder.build();
}

function Count(props: { found: readonly TracedPath[]; picture: Item } & Pick<TraceSettings, 'makes'>) {
  const { found, picture, makes } = props;
  const path = useMemo(() => together(found), [found]);
  const count = useMemo(() => [...subpathsOf(path)].length, [path]);
  const areLines = makes === 'middle-lines';
  if (makes === 'colours' && count > 0) return <ColoursFound found={found} nodes={nodeCount(path)} />;
  return (
    <p role="status" className={count === 0 ? 'text-warn' : 'figures text-quiet'}>
      {count === 0
        ? t(
            areLines
              ? 'No line is found: choose another level, or the other figure.'
              : 'No outline is found: choose another level, or the other figure.',
          )
        : t('{{outlines}}, {{path}} points{{makes}}', {
            outlines: areLines ? counted(count, 'line') : counted(count, 'outline'),
            path: nodeCount(path),
            makes: areLines ? widthsInWords(found, meanScale(picture.matrix)) : '',
          })}
    </p>
  );
}

/** How wide the strokes are that lines were found along. @param mm how large a pixel is */
function widthsInWords(found: readonly TracedPath[], mm: number): string {
  const widths = found.map(({ widthPx }) => (widthPx * mm).toFixed(1)).sort((a, b) => Number(a) - Number(b));
  const [least, most] = [widths[0], widths[widths.length - 1]];
  return inSentence(
    t('; strokes {{least}} mm wide', { least: least === most ? least : t('{{least}} to {{most}}', { least, most }) }),
  );
}

function ColoursFound({ found, nodes }: { found: readonly TracedPath[]; nodes: number }) {
  return (
    <p role="status" className="figures flex flex-wrap items-center gap-1.5 text-quiet">
      {found.map(({ colour }) => (
        <span
          key={colour}
          title={colour}
          className="size-4 rounded border border-line"
          style={{ background: colour }}
        />
      ))}
      {t('{{colours}}, {{nodes}} points', { colours: counted(found.length, 'colour'), nodes })}
    </p>
  );
}

interface FoundProps {
  picture: Item;
  settings: TraceSettings;
  /** What was found, in the picture's pixels; null while it is not known. */
  found: readonly TracedPath[] | null;
}

/** What was found as one path, with the widths of its strokes where it is middle lines. */
function asOne(found: readonly TracedPath[], { makes }: TraceSettings) {
  const widthsPx = makes === 'middle-lines' ? found.map(({ widthPx }) => widthPx) : undefined;
  return { path: together(found), widthsPx };
}

/** Puts what is found on a layer. */
function Make({ picture, settings, found }: FoundProps) {
  const actions = useBenchActions();
  const layers = useOwnLayers();
  const isAround = settings.makes !== 'middle-lines';
  const byColour = settings.makes === 'colours';
  // Outlines are mostly cut, and single lines scored.
  const usual = layers.find(({ operation }) => (isAround ? separates(operation) : operation === labelOperation));
  const [chosen, setChosen] = useState<string | null>(null);
  const [fate, setFate] = useState<Fate>('hidden');
  const layerId = byColour ? null : (chosen ?? usual?.id ?? layers[0]?.id ?? null);
  const make = (all: readonly TracedPath[]) => {
    let ids: string[] = [];
    const sources = [picture] as const;
    const parts = byColour ? colourParts(all, settings) : [{ settings, ...asOne(all, settings) }];
    actions.edit(t('make outlines of a picture'), (job) => {
      const made = parts.map((part) => ({
        ...{ kind: 'traced' as const, sources, ...part },
        path: transformPath(part.path, picture.matrix),
      }));
      const added = addFollowing(job, made, { layerId, fate: 'stays', guideId: null, follows: true, newId });
      ids = added.ids;
      return fate === 'hidden' ? hideItems(added.job, new Set([picture.id]), true) : added.job;
    });
    actions.select(ids);
  };
  return (
    <>
      {byColour ? (
        <p className="text-[12px] text-quiet">
          {t('Each area gets the paint of its colour; Colours says what that means.')}
        </p>
      ) : (
        <Choice
          label={t('Layer')}
          value={layerId}
          options={layers.map(({ id, name, operation }) => ({
            value: id,
            text: name,
            mark: <OperationMark operation={operation} />,
          }))}
          choose={setChosen}
        />
      )}
      <Choice<Fate>
        label={t('Picture')}
        value={fate}
        options={[
          { value: 'hidden', text: t('Is hidden') },
          { value: 'stays', text: t('Stays beside them') },
        ]}
        choose={setFate}
      />
      <Button look="main" disabled={!found || found.length === 0} onClick={() => found && make(found)}>
        {t('Make the {{byColour}}', { byColour: byColour ? t('areas') : isAround ? t('outlines') : t('lines') })}
      </Button>
    </>
  );
}

/** A part for each colour, which keeps the colours that were found and which of them it is. */
function colourParts(all: readonly TracedPath[], settings: TraceSettings) {
  const { byColour = usualByColour } = settings;
  return all.map(({ path, colour, found = [] }) => ({
    ...{ path, settings: { ...settings, byColour: { ...byColour, found, own: colour } } },
  }));
}

/** Takes what is found in place of the outlines that were made before; what follows those goes along. */
function Change({ traced, picture, settings, found }: FoundProps & { traced: Item }) {
  const actions = useBenchActions();
  const known = traced.shape.kind === 'traced' ? traced.shape.settings : null;
  const change = (all: readonly TracedPath[]) => {
    const changed = { settings, ...asOne(all, settings) };
    actions.edit(t('find outlines another way'), (job) => changeTraced(job, traced.id, changed, picture));
    changeOutlines(null);
  };
  return (
    <Button
      look="main"
      disabled={!found || found.length === 0 || settings === known}
      onClick={() => found && change(found)}
    >
      {t('Change the outlines')}
    </Button>
  );
}

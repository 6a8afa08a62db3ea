import { type Builder, marksOf, type Sources, sourcesFrom, sourcesOf, straightEdges } from '@lambent/core/builders';
import type { BuiltThing } from '@lambent/core/document';
import {
  appendPath,
  applyTo,
  boxHeight,
  boxWidth,
  distanceToLines,
  type Path,
  PathBuilder,
  type Point,
  pathBounds,
  transformPath,
} from '@lambent/core/geometry';
import type { LengthUnit } from '@lambent/core/units';
import { ArrowLeftRight } from 'lucide-react';
import { Fragment, useEffect, useMemo, useRef } from 'react';
import { Button } from '../../../../ui/button.tsx';
import { formatLength } from '../../../../ui/figures.ts';
import { t } from '../../../../words/words.ts';
import { useBench, useBenchActions } from '../../../context.ts';
import { jobOf } from '../../../state/document.ts';
import type { Numbers } from './built-fields.tsx';

/** The outlines of the operator's own that a builder works on. */
export interface OwnOutlines {
  /** Null where there are none that it can work on. */
  readonly sources: Sources | null;
  /** Why there are none. */
  readonly message: string | null;
  /** Whether they were taken, and stay whatever is selected. */
  readonly isTaken: boolean;
  readonly swap: () => void;
  readonly release: () => void;
}

/** Takes the outlines that are selected as soon as they will do; those of something that is there are known. */
export function useOwnOutlines(
  builder: Builder,
  thing: BuiltThing | null,
  takenIds: readonly string[] | null,
  setTakenIds: (ids: readonly string[] | null) => void,
): OwnOutlines {
  const actions = useBenchActions();
  const job = useBench(jobOf);
  const selection = useBench((state) => state.selection);
  const isAsked = builder.takes !== undefined;
  const found = useMemo(() => {
    if (!isAsked || thing) return null;
    const ids = takenIds ?? [...selection];
    const chosen = ids.flatMap((id) => job.drawing.items.filter((item) => item.id === id && !item.hidden));
    return sourcesFrom(chosen, builder);
  }, [isAsked, thing, takenIds, selection, job, builder]);
  useEffect(() => {
    if (!found?.ok || takenIds) return;
    setTakenIds(found.sources.itemIds);
    // Their edges are chosen on the bed, and handles would be in the way.
    actions.select([]);
  }, [found, takenIds, setTakenIds, actions]);
  const sources = useMemo(() => {
    if (thing) return sourcesOf(job, thing);
    return found?.ok ? found.sources : null;
  }, [thing, job, found]);
  return {
    sources: isAsked ? sources : null,
    message: found && !found.ok && (takenIds ?? [...selection]).length > 0 ? found.message : null,
    isTaken: takenIds !== null,
    swap: () => setTakenIds(takenIds && [...takenIds].reverse()),
    release: () => setTakenIds(null),
  };
}

/** What numbers point out on outlines, in bed mm; null where that is nothing. */
export function useMarked(builder: Builder, numbers: Numbers, sources: Sources | null): Path | null {
  return useMemo(() => {
    if (!sources) return null;
    const path = new PathBuilder();
    marksOf(builder, numbers, sources.outlines).forEach((mark, i) => {
      const place = sources.places[i];
      if (place) appendPath(path, transformPath(mark, place), true);
    });
    return path.build();
  }, [builder, numbers, sources]);
}

/** Lets the edges of outlines be chosen on the bed, by a press on one. */
export function useEdgePicking(
  builder: Builder,
  sources: Sources | null,
  set: (field: string, number: number) => void,
) {
  const actions = useBenchActions();
  const chosen = useRef(set);
  chosen.current = set;
  useEffect(() => {
    const fields = Object.entries(builder.fields).flatMap(([name, field]) =>
      field.kind === 'edge' ? [{ name, outline: field.outline }] : [],
    );
    if (!sources || fields.length === 0) return;
    const edges = fields.flatMap(({ name, outline }) => {
      const place = sources.places[outline];
      if (!place) return [];
      return straightEdges(sources.outlines[outline].path).map(({ number, from, to }) => {
        const ends = [from, to].flatMap(({ x, y }) => Object.values(applyTo(place, x, y)));
        return { name, number, line: { points: Float64Array.from(ends), closed: false } };
      });
    });
    const nearest = ({ x, y }: Point) => {
      const far = edges.map(({ line }) => distanceToLines([line], x, y));
      const mm = Math.min(...far);
      return { mm, edge: edges[far.indexOf(mm)] };
    };
    actions.offerGrip({
      reaches: (point, mm) => nearest(point).mm <= mm,
      grab: (point) => {
        const { name, number } = nearest(point).edge;
        chosen.current(name, number);
      },
      pull: () => undefined,
    });
    return () => actions.offerGrip(null);
  }, [builder, sources, actions]);
}

interface PartProps {
  builder: Builder;
  own: OwnOutlines;
  isThere: boolean;
  unit: LengthUnit;
}

/** Which outlines are taken, to be swapped or let go; or what is missing. */
export function OwnOutlinesPart({ builder, own, isThere, unit }: PartProps) {
  const { sources, message, isTaken, swap, release } = own;
  if (isThere) return null;
  if (!sources) {
    return (
      <div role="status" className="rounded-[10px] border border-dashed border-petrol bg-petrol-soft/40 p-3">
        <p className="font-semibold text-petrol">{t('Select two closed outlines on the bed')}</p>
        <p className="text-quiet">
          {t('Press one, and the other with Shift.')} {message}
        </p>
        {isTaken && (
          <Button look="quiet" className="-ml-3" onClick={release}>
            {t('Take what is selected')}
          </Button>
        )}
      </div>
    );
  }
  const hasEdges = Object.values(builder.fields).some(({ kind }) => kind === 'edge');
  return (
    <div className="flex flex-col gap-1.5">
      <dl className="grid grid-cols-[auto_1fr] gap-x-2">
        {sources.outlines.map(({ name, path }, i) => (
          <Fragment key={sources.itemIds[i]}>
            <dt className="text-quiet">{builder.takes?.[i]}</dt>
            <dd className="flex min-w-0 gap-2">
              <span className="min-w-0 flex-1 truncate font-semibold">{name === builder.takes?.[i] ? '' : name}</span>
              <span className="figures shrink-0">{sizeOf(path, unit)}</span>
            </dd>
          </Fragment>
        ))}
      </dl>
      <div className="grid grid-cols-2 gap-2">
        <Button onClick={swap}>
          <ArrowLeftRight size={15} aria-hidden /> {t('Swap them')}
        </Button>
        <Button onClick={release}>{t('Other outlines')}</Button>
      </div>
      {hasEdges && <p className="text-[12px] text-quiet">{t('Press an edge on the bed, or choose it here.')}</p>}
    </div>
  );
}

function sizeOf(path: Path, unit: LengthUnit): string {
  const box = pathBounds(path);
  return `${formatLength(boxWidth(box), unit, { bare: true })} × ${formatLength(boxHeight(box), unit)}`;
}

import { boundsOfAll, type Item, nameOfRow, pathOf, type RowList } from '@lambent/core/document';
import { boxHeight, boxWidth, growBox, pathData } from '@lambent/core/geometry';
import { chosenArt, type FilledRow, missingArt, pieceOf } from '@lambent/core/rows';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import { IconButton } from '../../../../ui/button.tsx';
import { said, t } from '../../../../words/words.ts';
import { Trouble } from '../placing-fields.tsx';
import { FaultList } from './fault-list.tsx';
import { useFiles } from './use-files.ts';
import type { Filled } from './use-filled-rows.ts';

interface Props {
  list: RowList;
  design: readonly Item[];
  filled: Filled;
}

/** The design as it is for one row, and the next; what does not come out leads to its row. */
export function RowPreview({ list, design, filled: { rows: filled, isWorking, trouble } }: Props) {
  const [chosen, choose] = useState(0);
  const files = useFiles();
  const index = Math.min(chosen, list.rows.length - 1);
  if (trouble) return <Trouble words={said(trouble.message)} />;
  if (index < 0) return null;
  const row = filled?.rows.find(({ rowId }) => rowId === list.rows[index].id);
  const go = (step: number) => choose((index + step + list.rows.length) % list.rows.length);
  const goTo = (rowId: string) =>
    choose(
      Math.max(
        0,
        list.rows.findIndex(({ id }) => id === rowId),
      ),
    );
  const artOf = (place: Item) => chosenArt(place, { columns: list.columns, row: list.rows[index], files });
  return (
    <section aria-label={t('Preview of the rows')} className="flex flex-col gap-1.5 border-t border-line pt-2">
      <div className="flex items-center gap-1">
        <IconButton label={t('Row before')} onClick={() => go(-1)}>
          <ChevronLeft size={16} aria-hidden />
        </IconButton>
        <p role="status" className="figures min-w-0 flex-1 truncate text-center text-[12.5px]" data-testid="row-shown">
          {t('Row {{row}} of {{rows}}: {{name}}', {
            row: index + 1,
            rows: list.rows.length,
            name: nameOfRow(list.rows[index], index + 1),
          })}
        </p>
        <IconButton label={t('Row after')} onClick={() => go(1)}>
          <ChevronRight size={16} aria-hidden />
        </IconButton>
      </div>
      {row ? (
        <RowPicture design={design} row={row} artOf={artOf} />
      ) : (
        isWorking && <p className="text-quiet">{t('Filling the rows…')}</p>
      )}
      <FaultList
        label={t('Does not come out')}
        faults={[...missingArt(design, list, files), ...(filled?.faults ?? [])].map(({ message, rowId }) => ({
          words: said(message),
          go: () => goTo(rowId),
        }))}
      />
    </section>
  );
}

interface PictureProps {
  design: readonly Item[];
  row: FilledRow;
  /** What stands in the place of an item, where the row chooses that. */
  artOf: (place: Item) => readonly Item[] | null;
}

function RowPicture({ design, row, artOf }: PictureProps) {
  const box = boundsOfAll(design);
  const view = growBox(box, Math.max(1, boxWidth(box) * 0.04));
  return (
    <svg
      viewBox={`${view.minX} ${view.minY} ${boxWidth(view)} ${boxHeight(view)}`}
      className="max-h-40 w-full rounded-lg border border-line bg-paper"
      role="img"
      aria-label={t('The design for {{name}}', { name: row.name })}
    >
      {pieceOf(design, row, artOf).map((item) => (
        <path
          key={item.id}
          d={pathData(pathOf(item), 3)}
          fill={item.paint.fill ?? 'none'}
          fillRule={item.fillRule}
          stroke={item.paint.stroke ?? 'none'}
          strokeWidth={1.2}
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  );
}

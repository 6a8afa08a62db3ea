import { gatherBy } from '@lambent/core/lists';
import {
  type CellContext,
  type ColumnDef,
  createSortedRowModel,
  metaHelper,
  type ReactTable,
  rowSortingFeature,
  sortFn_alphanumeric,
  sortFn_basic,
  tableFeatures,
  useTable,
} from '@tanstack/react-table';
import { ChevronDown, ChevronUp } from 'lucide-react';
import { Fragment, type ReactNode } from 'react';

/** How a column is set: classes of its head and of its cells. */
interface ColumnLook {
  head?: string;
  cell?: string;
}

export const tableParts = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  sortFns: { alphanumeric: sortFn_alphanumeric, basic: sortFn_basic },
  columnMeta: metaHelper<ColumnLook>(),
});
type Parts = typeof tableParts;

// biome-ignore lint/suspicious/noExplicitAny: each column has a value of its own kind
export type Columns<Line extends object> = ColumnDef<Parts, Line, any>[];
// biome-ignore lint/suspicious/noExplicitAny: a cell may be of any of the columns
export type CellOf<Line extends object> = CellContext<Parts, Line, any>;

interface Props<Line extends object> {
  /** What the table is; null where a heading says it. */
  label?: string;
  /** Defined once, outside of components: cells are components, which must stay the same ones. */
  columns: Columns<Line>;
  lines: readonly Line[];
  idOf: (line: Line) => string;
  /** What a row is called, and how it looks. */
  row?: (line: Line) => { label?: string; className?: string; testId?: string };
  /** What follows a row, over the whole width. */
  below?: (line: Line, width: number) => ReactNode;
  /** Lines of one group stand together, under its heading. */
  groups?: { groupOf: (line: Line) => string; heading: (first: Line) => ReactNode };
  /** As many rows are shown, of all in their order. */
  most?: number;
  className?: string;
  bodyClass?: string;
  caption?: ReactNode;
}

/** A table: columns with an accessor are sorted by a press on their head, and back again. */
export function DataTable<Line extends object>(props: Props<Line>) {
  const { label, columns, lines, idOf, row, below, groups, most, className = '', bodyClass, caption } = props;
  const table = useTable({
    features: tableParts,
    columns,
    data: lines as Line[],
    getRowId: idOf,
    sortDescFirst: false,
  });
  const rows = table.getRowModel().rows.slice(0, most);
  const bodies = groups ? [...gatherBy(rows, ({ original }) => groups.groupOf(original)).values()] : [rows];
  return (
    <table aria-label={label} className={`w-full border-collapse text-left ${className}`}>
      {caption}
      <Head table={table} />
      {bodies.map((body, i) => (
        <tbody key={groups && body[0] ? groups.groupOf(body[0].original) : i} className={bodyClass}>
          {groups && body[0] && (
            <tr className="border-t border-line bg-table text-[12px]">
              <th scope="rowgroup" colSpan={columns.length} className="px-3 py-1 font-semibold">
                {groups.heading(body[0].original)}
              </th>
            </tr>
          )}
          {body.map((tableRow) => {
            const look = row?.(tableRow.original);
            return (
              <Fragment key={tableRow.id}>
                <tr
                  aria-label={look?.label}
                  data-testid={look?.testId}
                  className={`border-t border-line ${look?.className ?? ''}`}
                >
                  {tableRow.getAllCells().map((cell) => (
                    <td key={cell.id} className={cell.column.columnDef.meta?.cell}>
                      <table.FlexRender cell={cell} />
                    </td>
                  ))}
                </tr>
                {below?.(tableRow.original, columns.length)}
              </Fragment>
            );
          })}
        </tbody>
      ))}
    </table>
  );
}

const sortWords = { asc: 'ascending', desc: 'descending' } as const;

function Head<Line extends object>({ table }: { table: ReactTable<Parts, Line> }) {
  return (
    <thead>
      {table.getHeaderGroups().map((group) => (
        <tr key={group.id} className="text-[12px] text-quiet">
          {group.headers.map((header) => {
            const { column } = header;
            const sorted = column.getIsSorted();
            return (
              <th
                key={header.id}
                scope="col"
                aria-sort={sorted ? sortWords[sorted] : undefined}
                className={`hyphens-auto font-normal [overflow-wrap:anywhere] ${column.columnDef.meta?.head ?? ''}`}
              >
                {column.getCanSort() ? (
                  <button
                    type="button"
                    onClick={column.getToggleSortingHandler()}
                    className="flex items-center gap-0.5 rounded hover:text-ink"
                  >
                    <table.FlexRender header={header} />
                    {sorted === 'asc' && <ChevronUp size={12} aria-hidden />}
                    {sorted === 'desc' && <ChevronDown size={12} aria-hidden />}
                  </button>
                ) : (
                  <table.FlexRender header={header} />
                )}
              </th>
            );
          })}
        </tr>
      ))}
    </thead>
  );
}

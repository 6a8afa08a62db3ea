import { type SheetShape, sheetOutline } from '@lambent/core/document';
import { pathData } from '@lambent/core/geometry';

/** A small picture of the outline of a sheet, with its holes; as wide or as high as there is room. */
export function OutlinePicture({ shape, className = '' }: { shape: SheetShape; className?: string }) {
  const { width, height } = shape;
  return (
    <svg
      viewBox={`${-width * 0.02} ${-height * 0.02} ${width * 1.04} ${height * 1.04}`}
      className={className}
      aria-hidden
    >
      <path
        d={pathData(sheetOutline(shape), 2)}
        fillRule="evenodd"
        className="fill-petrol/20 stroke-petrol"
        strokeWidth={1.5}
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}

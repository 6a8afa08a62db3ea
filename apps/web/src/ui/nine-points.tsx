import { t } from '../words/words.ts';

/** The nine points of a box, from its top left, row by row: shares of its width and height. */
const ninePoints = [0, 0.5, 1].flatMap((v) => [0, 0.5, 1].map((u) => ({ u, v })));

const ninePointNames = [
  t('top left'),
  t('top'),
  t('top right'),
  t('left'),
  t('middle'),
  t('right'),
  t('bottom left'),
  t('bottom'),
  t('bottom right'),
] as const;

/** What one of the nine points of a box is called. */
export function pointName(point: { readonly u: number; readonly v: number }): string {
  return ninePointNames[ninePoints.findIndex(({ u, v }) => u === point.u && v === point.v)];
}

interface Props {
  /** Begins the name of each: “Lands by its”, “Go to its”. */
  label: string;
  /** The one that is chosen; null where they are places to go to. */
  value: { readonly u: number; readonly v: number } | null;
  choose: (point: { u: number; v: number }) => void;
  disabled?: boolean;
}

/** The nine points of a box, to choose one of them or to go to it. */
export function NinePoints({ label, value, choose, disabled = false }: Props) {
  const chosen = ninePoints.findIndex(({ u, v }) => u === value?.u && v === value?.v);
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset has a legend that is shown
    <div
      role="group"
      aria-label={label}
      className="grid shrink-0 grid-cols-3 rounded-lg border border-line bg-raised p-0.5"
    >
      {ninePoints.map((point, i) => (
        <button
          key={ninePointNames[i]}
          type="button"
          aria-label={`${label} ${ninePointNames[i]}`}
          aria-pressed={value ? i === chosen : undefined}
          title={`${label} ${ninePointNames[i]}`}
          disabled={disabled}
          onClick={() => choose(point)}
          className="group grid size-6 place-items-center rounded hover:bg-petrol-soft disabled:opacity-35"
        >
          <span className="size-2 rounded-full border-[1.5px] border-quiet group-hover:border-petrol group-aria-pressed:size-2.5 group-aria-pressed:border-petrol group-aria-pressed:bg-petrol" />
        </button>
      ))}
    </div>
  );
}

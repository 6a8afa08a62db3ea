import { LengthField } from '../../../ui/length-field.tsx';
import { t } from '../../../words/words.ts';
import { useBench } from '../../context.ts';
import { unitOf } from '../../state/document.ts';
import type { Distances } from './use-distances.ts';

interface Props {
  /** Which of the distances. */
  name: keyof Distances;
  distances: Distances;
  setDistances: (change: Partial<Distances>) => void;
}

/** How far apart pieces are laid, or how far from the edge of the sheet. */
export function DistanceField({ name, distances, setDistances }: Props) {
  const unit = useBench(unitOf);
  return (
    <LengthField
      label={name === 'gapMm' ? t('Between pieces') : t('To the edge')}
      unit={unit}
      value={distances[name]}
      within={[0, 1000]}
      layout="stack"
      commit={(mm) => setDistances({ [name]: mm })}
    />
  );
}

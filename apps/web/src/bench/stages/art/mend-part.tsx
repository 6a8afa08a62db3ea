import { useState } from 'react';
import { useInSentence } from '../../../stores/numbers.ts';
import { Button } from '../../../ui/button.tsx';
import { LengthField } from '../../../ui/length-field.tsx';
import { t } from '../../../words/words.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { useKeptSettings } from '../../kept-settings.ts';
import { join, keep, roundAgain, simplify } from '../../mend-lines.ts';
import { unitOf } from '../../state/document.ts';
import { Part } from '../drawer.tsx';

const usual = { within: 0.1 };

/** Joining ends and taking needless points away. */
export function MendPart() {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const count = useBench((state) => state.selection.size);
  const [{ within }, keepIt] = useKeptSettings('mend lines', usual);
  const inSentence = useInSentence();
  const [said, setSaid] = useState<string | null>(null);
  return (
    <Part title={t('Mend lines')} folds>
      <LengthField
        label={t('Within')}
        layout="row"
        unit={unit}
        value={within}
        takes="more-than-0"
        commit={(next) => keepIt({ within: next })}
      />
      <div className="flex gap-1.5">
        <Button onClick={() => setSaid(join(actions, within))}>{t('Join ends')}</Button>
        <Button onClick={() => setSaid(simplify(actions, within))}>{t('Simplify')}</Button>
        <Button
          title={t('Runs of short lines that lie on a circle become arcs')}
          onClick={() => setSaid(roundAgain(actions, within))}
        >
          {t('Find arcs')}
        </Button>
      </div>
      {count > 1 && (
        <>
          <p className="text-[12px] text-quiet">
            {t('Of the others, keep what lies to one side of the outline in front:')}
          </p>
          <div className="flex gap-1.5">
            <Button onClick={() => keep(actions, 'inside')}>{t('Inside it')}</Button>
            <Button onClick={() => keep(actions, 'outside')}>{t('Outside it')}</Button>
          </div>
        </>
      )}
      {said && (
        <p role="status" className="text-[12px] text-quiet">
          {inSentence(said)}
        </p>
      )}
    </Part>
  );
}

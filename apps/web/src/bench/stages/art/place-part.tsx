import { anchorPoint } from '@lambent/core/document';
import { moveItems, placeFrom, transformItems } from '@lambent/core/edits';
import { boxCentre, rotation, translation } from '@lambent/core/geometry';
import { countsDown } from '@lambent/core/machine';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { LengthField } from '../../../ui/length-field.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { parseAngle } from '../../../ui/plain-number.ts';
import { Tick } from '../../../ui/tick.tsx';
import { TypedField } from '../../../ui/typed-field.tsx';
import { t } from '../../../words/words.ts';
import { addCopies, mirror } from '../../commands.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { useKeptSettings } from '../../kept-settings.ts';
import { jobOf, machineOf, unitOf } from '../../state/document.ts';
import { anchorOf, selectionBox } from '../../state/hand.ts';
import { pointAtAngle } from '../../tools/recipes.ts';
import { Part } from '../drawer.tsx';

type By = 'axes' | 'angle';

const usualPlace = {
  mode: 'axes' as By,
  dx: 0,
  dy: 0,
  distance: 10,
  angle: 0,
  copies: 1,
  turn: 15,
  linked: false,
};

/** Moving, copying and turning by typed figures, by itself or from the mark. */
export function PlacePart() {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const mark = useBench((state) => jobOf(state).mark);
  const down = countsDown(useBench(machineOf));
  const [{ mode, copies, turn, linked, ...offset }, keep] = useKeptSettings('place', usualPlace);
  const links = linked ? 'all' : 'none';

  /** How far to go, in bed mm. */
  const way = () =>
    mode === 'axes'
      ? { x: offset.dx, y: offset.dy * down }
      : pointAtAngle({ x: 0, y: 0 }, offset.distance, offset.angle);
  const move = () => {
    const { x, y } = way();
    actions.edit(t('move by'), (job) => moveItems(job, actions.get().selection, x, y));
    actions.rememberMove(x, y);
  };
  const copy = () => {
    const { x, y } = way();
    const maps = Array.from({ length: copies }, (_, i) => translation(x * (i + 1), y * (i + 1)));
    addCopies(actions, copies === 1 ? t('copy by') : t('make {{copies}} copies', { copies }), maps, links, true);
    actions.rememberMove(x, y);
  };
  const place = () => {
    if (!mark) return;
    const state = actions.get();
    actions.edit(t('place from the mark'), (job) => placeFrom(job, state.selection, anchorOf(state), mark, way()));
  };
  const about = () => {
    const state = actions.get();
    return mark ?? boxCentre(selectionBox(state));
  };
  const turnIt = (copying: boolean) => {
    const map = rotation(-turn, about());
    if (copying) addCopies(actions, t('copy turned {{turn}}°', { turn }), [map], links);
    else actions.edit(t('turn {{turn}}°', { turn }), (job) => transformItems(job, actions.get().selection, map));
  };
  return (
    <Part title={t('Place exactly')} folds>
      <Choice<By>
        label={t('Given by')}
        value={mode}
        options={[
          { value: 'axes', text: t('Across and down') },
          { value: 'angle', text: t('Distance and angle') },
        ]}
        choose={(next) => keep({ mode: next })}
      />
      <div className="grid grid-cols-2 gap-1.5">
        {mode === 'axes' ? (
          <>
            <LengthField label="Δx" unit={unit} value={offset.dx} commit={(dx) => keep({ dx })} />
            <LengthField label="Δy" unit={unit} value={offset.dy} commit={(dy) => keep({ dy })} />
          </>
        ) : (
          <>
            <LengthField
              label={t('Distance')}
              unit={unit}
              value={offset.distance}
              commit={(distance) => keep({ distance })}
            />
            <TypedField
              label={t('Direction')}
              unit="°"
              text={String(offset.angle)}
              parse={parseAngle}
              commit={(angle) => void keep({ angle })}
            />
          </>
        )}
      </div>
      <div className="flex items-end gap-1.5">
        <Button onClick={move}>{t('Move by')}</Button>
        <Button onClick={copy}>{t('Copy by')}</Button>
        <div className="w-[64px] pointer-coarse:w-[84px]">
          <NumberField label="×" value={copies} least={1} most={1000} whole commit={(next) => keep({ copies: next })} />
        </div>
      </div>
      {mark ? (
        <Button onClick={place}>{t('Place its anchor that far from the mark')}</Button>
      ) : (
        <p className="text-[12px] text-quiet">
          {t('M marks the point under the pointer: an end, a middle, an edge to place from.')}
        </p>
      )}
      <div className="flex items-end gap-1.5">
        <TypedField
          label={t('Turn')}
          unit="°"
          text={String(turn)}
          parse={parseAngle}
          commit={(degrees) => void keep({ turn: degrees })}
        />
        <Button onClick={() => turnIt(false)}>{mark ? t('About the mark') : t('Turn')}</Button>
        <Button onClick={() => turnIt(true)}>{t('A copy')}</Button>
      </div>
      <Tick checked={linked} set={(checked) => keep({ linked: checked })}>
        {t('copies are linked: a change of one changes all')}
      </Tick>
      <MirrorRow />
    </Part>
  );
}

type MirrorLine = 'upright' | 'level' | 'angle';

const usualMirror = { line: 'upright' as MirrorLine, angle: 45 };

/** Mirroring over a line through the mark, or through the chosen point of the selection's frame: an edge of it, or its middle. */
function MirrorRow() {
  const actions = useBenchActions();
  const mark = useBench((state) => jobOf(state).mark);
  const [{ line, angle }, keep] = useKeptSettings('mirror', usualMirror);
  const through = () => mark ?? anchorPoint(selectionBox(actions.get()), anchorOf(actions.get()));
  // Angles are typed as they are seen, upwards from the right.
  const degrees = line === 'upright' ? 90 : line === 'level' ? 0 : -angle;
  return (
    <div className="flex items-end gap-1.5">
      <div className="min-w-0 flex-1">
        <Choice<MirrorLine>
          label={t('Mirror over')}
          value={line}
          options={[
            { value: 'upright', text: t('An upright line') },
            { value: 'level', text: t('A level line') },
            { value: 'angle', text: t('A slanted line') },
          ]}
          choose={(next) => keep({ line: next })}
        />
      </div>
      {line === 'angle' && (
        <div className="w-[64px] pointer-coarse:w-[84px]">
          <TypedField
            label={t('At')}
            unit="°"
            text={String(angle)}
            parse={parseAngle}
            commit={(value) => void keep({ angle: value })}
          />
        </div>
      )}
      <Button
        title={mark ? t('The line goes through the mark') : t('The line goes through the chosen point of the frame')}
        onClick={() => mirror(actions, degrees, through())}
      >
        {mark ? t('at the mark') : t('at its point')}
      </Button>
    </div>
  );
}

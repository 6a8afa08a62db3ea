import { IconButton } from '../../ui/button.tsx';
import { Toolbar } from '../../ui/toolbar.tsx';
import { t } from '../../words/words.ts';
import { useBench, useBenchActions } from '../context.ts';
import { withLetter } from '../shortcuts.ts';
import { Catching } from './catching.tsx';
import { chooseTool } from './choose.ts';
import { type DrawingToolName, toolNames } from './tool.ts';
import { toolLooks } from './tool-looks.ts';

/** A gap stands before these. */
const opensGroup: readonly DrawingToolName[] = ['rectangle', 'stretch', 'dimension'];

/** The drawing tools; floats at the foot of the bed. */
export function ToolDock() {
  const actions = useBenchActions();
  const chosen = useBench((state) => state.tool?.name);
  return (
    <Toolbar label={t('Tools')} id="tools">
      {toolNames.map((name) => {
        const { text, icon: Icon } = toolLooks[name];
        return (
          <span key={name} className="flex items-center">
            {opensGroup.includes(name) && <span className="mx-1 h-5 w-px bg-line" aria-hidden />}
            <IconButton
              label={withLetter(text, name)}
              pressed={chosen === name}
              onClick={() => chooseTool(actions, name)}
            >
              <Icon size={17} aria-hidden />
            </IconButton>
          </span>
        );
      })}
      <span className="mx-1 h-5 w-px bg-line" aria-hidden />
      <Catching />
    </Toolbar>
  );
}

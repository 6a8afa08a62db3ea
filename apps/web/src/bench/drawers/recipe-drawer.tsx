import { clearSettings, isBurnt, type PreparedLayer, type SpeedUnit, speedUnits } from '@lambent/core';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { Notice } from '../../ui/notice.tsx';
import { OperationMark } from '../../ui/operation-mark.tsx';
import { useBench, useBenchActions } from '../context.ts';
import { LayerSettingsFields, sourceWords } from '../layer/layer-settings.tsx';
import { chooseMaterial } from '../sheet-choice.ts';
import { jobOf } from '../store.ts';
import { MaterialChoice } from './bed-drawer.tsx';
import { Drawer, Part } from './drawer.tsx';

/** The material, and the settings each layer burns with. */
export function RecipeDrawer() {
  const actions = useBenchActions();
  const { layers, material } = useBench((state) => state.prepared);
  const changed = useBench((state) =>
    Object.values(jobOf(state).settings).some((settings) => Object.keys(settings).length > 0),
  );
  const speedUnit = useBench((state) => state.speedUnit);
  const used = layers.filter(({ layer, placed }) => isBurnt(layer.operation) && placed.length > 0);
  return (
    <Drawer
      title="Recipe"
      aside={used.length === 1 ? '1 layer' : `${used.length} layers`}
      foot={
        changed ? (
          <Button onClick={() => actions.edit('settings as in the recipe', clearSettings)}>All as in the recipe</Button>
        ) : undefined
      }
    >
      <Part title="Material">
        <MaterialChoice value={material?.id ?? null} choose={(id) => chooseMaterial(actions, id)} />
      </Part>
      {material?.forbidden && (
        <Notice level="blocks" title="Never laser this">
          {material.name}: {material.forbidden}
        </Notice>
      )}
      <Part title="Speeds in">
        <Choice<SpeedUnit>
          label="Speeds in"
          value={speedUnit}
          options={speedUnits.map((unit) => ({ value: unit, text: unit === '%' ? '% of top speed' : unit }))}
          choose={(unit) => actions.set({ speedUnit: unit })}
        />
      </Part>
      {used.length === 0 && (
        <p className="text-quiet">
          No layer has anything to burn yet. Bring in a drawing and say what its colours mean.
        </p>
      )}
      {used.map((layer) => (
        <LayerCard key={layer.id} prepared={layer} />
      ))}
    </Drawer>
  );
}

function LayerCard({ prepared }: { prepared: PreparedLayer }) {
  const { layer, applied, material } = prepared;
  const several = useBench((state) => state.prepared.layers.filter(({ layer: { id } }) => id === layer.id).length > 1);
  return (
    <section aria-label={layer.name} className="rounded-[10px] border border-line bg-raised p-3">
      <div className="mb-2 flex items-center gap-2">
        <OperationMark operation={layer.operation} />
        <h2 className="font-bold">{layer.name}</h2>
        <span className="ml-auto text-[12px] text-quiet">{sourceWords(applied.sources)}</span>
      </div>
      {several && <p className="mb-2 text-[12px] text-quiet">On {material?.name.toLowerCase() ?? 'no material'}</p>}
      <LayerSettingsFields prepared={prepared} />
    </section>
  );
}

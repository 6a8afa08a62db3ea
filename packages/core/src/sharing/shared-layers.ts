import { type ColourKey, type Layer, layersUnder } from '../colours/key.ts';
import type { JobDocument } from '../document/job.ts';
import { type LayerBurning, usualBurning } from '../document/layer.ts';
import type { PreparedLayer } from '../plan/prepare.ts';

type Decided = Pick<JobDocument, 'settings' | 'variants'>;

/**
 * The layers of shared sheets. Where a layer of a job burns as one of the key, or as one of another job does, they are one.
 */
export class SharedLayers {
  private readonly known = new Map<string, string>();
  private readonly names = new Set<string>();
  private readonly layers: Layer[] = [];
  private readonly settings: Record<string, JobDocument['settings'][string]> = {};
  private readonly variants: Record<string, string> = {};

  constructor(key: ColourKey) {
    const none = { settings: {}, variants: {} };
    for (const layer of layersUnder(key)) {
      const sameAs = signatureOf(layer, { ...usualBurning, ...layer.burning }, none);
      // Under a colour that means the same as another one, each keeps its own layer.
      this.known.set(`${layer.id} ${sameAs}`, layer.id);
      this.names.add(layer.name.toLowerCase());
    }
  }

  /** The id of the layer that a layer of a job is there. @param owner what the job is called */
  idFor({ layer, burning }: PreparedLayer, job: Decided, owner: string): string {
    const sameAs = signatureOf(layer, burning, job);
    const found = this.known.get(`${layer.id} ${sameAs}`) ?? this.known.get(sameAs);
    if (found !== undefined) return found;
    const id = `shared-${this.layers.length + 1}`;
    this.known.set(sameAs, id);
    this.layers.push({ ...layer, id, name: this.freeName(layer.name, owner), burning });
    const [byHand, variant] = [job.settings[layer.id], job.variants[layer.id]];
    if (byHand) this.settings[id] = byHand;
    if (variant !== undefined) this.variants[id] = variant;
    return id;
  }

  /** What a job needs to have these layers. */
  ofJob(): Pick<JobDocument, 'layers' | 'settings' | 'variants'> {
    return { layers: this.layers, settings: this.settings, variants: this.variants };
  }

  private freeName(name: string, owner: string): string {
    const own = `${name}, ${owner}`;
    for (let nth = 1; ; nth++) {
      const tried = nth === 1 ? own : `${own} ${nth}`;
      if (this.names.has(tried.toLowerCase())) continue;
      this.names.add(tried.toLowerCase());
      return tried;
    }
  }
}

/** The same for layers that burn alike. */
function signatureOf(layer: Layer, burning: LayerBurning, { settings, variants }: Decided): string {
  const { operation, powerShare = 1, rank = null, settings: own = {} } = layer;
  const byHand = settings[layer.id] ?? {};
  return JSON.stringify([
    operation,
    powerShare,
    rank,
    sorted(own),
    sorted(byHand),
    variants[layer.id] ?? '',
    sorted(burning),
  ]);
}

function sorted(record: object): [string, unknown][] {
  return Object.entries(record)
    .filter(([, value]) => value !== undefined)
    .sort(([a], [b]) => (a < b ? -1 : 1));
}

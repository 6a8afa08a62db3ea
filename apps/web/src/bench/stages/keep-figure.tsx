import type { FitName } from '@lambent/core/document';
import { type FigureFrom, fitOf, type Material } from '@lambent/core/recipes';
import { useState } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../../api.ts';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { LengthField } from '../../ui/length-field.tsx';
import { useBench, useBenchActions } from '../context.ts';
import { jobOf, unitOf } from '../state/document.ts';

/** Who says so, and how they know: what goes with a figure that is kept. */
export interface Witness {
  readonly by: string;
  readonly from: FigureFrom;
}

const fromWords: readonly { value: FigureFrom; text: string }[] = [
  { value: 'measured', text: 'Measured' },
  { value: 'copied', text: 'Copied from elsewhere' },
  { value: 'guessed', text: 'A guess' },
];

/** Who measures, as last said here; the job's member to begin with. */
export function useWitness(from: FigureFrom): [Witness, (part: Partial<Witness>) => void] {
  const member = useBench((state) => jobOf(state).member);
  const [witness, setWitness] = useState<Witness>({ by: localStorage.getItem('witness') ?? member, from });
  return [
    witness,
    (part) => {
      if (part.by !== undefined) localStorage.setItem('witness', part.by);
      setWitness({ ...witness, ...part });
    },
  ];
}

export function ByField({ by, set, label = 'Read by' }: { by: string; set: (by: string) => void; label?: string }) {
  return (
    <label className="flex flex-col gap-1">
      <span className="text-quiet">{label}</span>
      <input
        value={by}
        maxLength={120}
        onChange={(event) => set(event.target.value)}
        className="h-9 rounded-lg border border-line bg-raised px-3"
      />
    </label>
  );
}

/** Keeps what the server was asked to keep of a material, and has the Bench go by it. @returns whether it was kept */
export function useKeeping(): (ask: () => Promise<Material>, words: string) => Promise<boolean> {
  const actions = useBenchActions();
  return async (ask, words) => {
    try {
      const kept = await ask();
      const { shop } = actions.get();
      actions.takeShop({ ...shop, materials: shop.materials.map((known) => (known.id === kept.id ? kept : known)) });
      toast.message(words);
      return true;
    } catch (error) {
      toast.error(sentenceOf(error));
      return false;
    }
  };
}

/** Changing what a fit is in a material, with who says so. */
export function KeepFit({ material, fit }: { material: Material; fit: FitName }) {
  const unit = useBench(unitOf);
  const keep = useKeeping();
  const [open, setOpen] = useState(false);
  const [mm, setMm] = useState(fitOf(material, fit).mm);
  const [{ by, from }, setWitness] = useWitness('measured');
  if (!open) {
    return (
      <Button look="quiet" className="-ml-3 self-start" onClick={() => setOpen(true)}>
        Change what {fit} is in {material.name.toLowerCase()}
      </Button>
    );
  }
  return (
    <section
      aria-label={`What ${fit} is`}
      className="flex flex-col gap-1.5 rounded-[10px] border border-line bg-raised p-2.5"
    >
      <LengthField
        label="Clearance"
        unit={unit}
        value={mm}
        commit={(typed) => {
          if (typed < -2 || typed > 5) return 'From -2 to 5 mm.';
          setMm(typed);
          return undefined;
        }}
      />
      <Choice label="It is" value={from} options={fromWords} choose={(value) => setWitness({ from: value })} />
      <ByField by={by} set={(value) => setWitness({ by: value })} />
      <div className="flex gap-1.5">
        <Button
          disabled={by.trim() === ''}
          onClick={async () => {
            const ask = () => api.keepFit(material.id, { fit, mm, from, by: by.trim() });
            if (await keep(ask, `${material.name}: ${fit} is now ${mm} mm.`)) setOpen(false);
          }}
        >
          Keep it
        </Button>
        <Button look="quiet" onClick={() => setOpen(false)}>
          Never mind
        </Button>
      </div>
    </section>
  );
}

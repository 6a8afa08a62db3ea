import { Check } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { useSettings } from '../shop/use-settings.ts';
import { Button } from '../ui/button.tsx';
import { t } from '../words/words.ts';
import { type Beginning, type FirstStep, firstSteps, stepsDone } from './first-steps.ts';
import { JobStep } from './job-step.tsx';
import { KeyStep } from './key-step.tsx';
import { MachineStep } from './machine-step.tsx';
import { MaterialStep } from './material-step.tsx';
import { ShopStep } from './shop-step.tsx';

const looks: Readonly<Record<FirstStep, { readonly title: string; readonly about: string }>> = {
  shop: { title: t('The shop'), about: t('Its name, and who you are') },
  machine: { title: t('A machine'), about: t('Its bed, its power, its speeds') },
  material: { title: t('Materials'), about: t('What you burn on') },
  key: { title: t('A colour key'), about: t('What colours in drawings mean') },
  job: { title: t('The first job'), about: t('A drawing, a check, a burn') },
};

/** Leads a new shop through its first steps. Each can be skipped, done later, and done again. */
export default function FirstRun({ begun }: { begun: Beginning }) {
  const { settle } = useSettings();
  const done = stepsDone(begun);
  const [passed, setPassed] = useState<ReadonlySet<FirstStep>>(new Set());
  const [chosen, choose] = useState<FirstStep | null>(null);
  const step = chosen ?? firstSteps.find((name) => !done.has(name) && !passed.has(name)) ?? 'job';
  const next = () => {
    setPassed((known) => new Set([...known, step]));
    choose(firstSteps[firstSteps.indexOf(step) + 1] ?? 'job');
  };
  const panels: Record<FirstStep, ReactNode> = {
    shop: <ShopStep settings={begun.settings} next={next} />,
    machine: <MachineStep machines={begun.machines} next={next} />,
    material: <MaterialStep materials={begun.materials} next={next} />,
    key: <KeyStep next={next} />,
    job: <JobStep {...begun} back={choose} />,
  };
  return (
    <div className="grid items-start gap-4 md:grid-cols-[250px_1fr]">
      <div className="flex flex-col gap-3">
        <ol className="flex flex-col gap-1 rounded-xl border border-line bg-paper p-2" aria-label={t('First steps')}>
          {firstSteps.map((name, i) => {
            const isDone = done.has(name) || (name === 'key' && passed.has(name));
            return (
              <li key={name}>
                <button
                  type="button"
                  aria-current={name === step ? 'step' : undefined}
                  onClick={() => choose(name)}
                  className="flex w-full items-center gap-3 rounded-lg px-2.5 py-2 text-left hover:bg-table aria-[current=step]:bg-petrol-soft"
                >
                  <span
                    className={`flex size-7 shrink-0 items-center justify-center rounded-full border font-bold ${isDone ? 'border-transparent bg-settled text-white' : 'border-line bg-raised text-quiet'}`}
                  >
                    {isDone ? <Check size={15} aria-label={t('done')} /> : i + 1}
                  </span>
                  <span className="min-w-0">
                    <span className="block font-semibold">{looks[name].title}</span>
                    <span className="block text-[12px] text-quiet">{looks[name].about}</span>
                  </span>
                </button>
              </li>
            );
          })}
        </ol>
        {!done.has('machine') && !done.has('material') && <LookAround />}
        <Button look="quiet" onClick={() => void settle({ isSetUp: true })}>
          {t('Skip all of this')}
        </Button>
      </div>
      <section aria-label={looks[step].title} className="rounded-xl border border-line bg-paper p-5">
        {panels[step]}
      </section>
    </div>
  );
}

/** Loads the demo shop, to see what Lambent does before one types anything. */
function LookAround() {
  const [isLoading, setLoading] = useState(false);
  const load = async () => {
    setLoading(true);
    try {
      await api.lookAroundInDemo();
      // Everything that the page knows is of another shop from now on.
      location.assign('/');
    } catch (error) {
      setLoading(false);
      toast.error(sentenceOf(error));
    }
  };
  return (
    <div className="rounded-xl border border-dashed border-line p-3">
      <p className="mb-2 text-quiet">
        {t(
          'Look around first: a made-up shop with three simulated machines and seven jobs. You leave it with one press.',
        )}
      </p>
      <Button disabled={isLoading} onClick={() => void load()}>
        {isLoading ? t('Loading the demo shop…') : t('Look around in the demo shop')}
      </Button>
    </div>
  );
}

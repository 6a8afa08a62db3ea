import { type Machine, machineFigures, type ToldDifference, toldDifferences } from '@lambent/core/machine';
import { useMutation } from '@tanstack/react-query';
import { Check, TriangleAlert, X } from 'lucide-react';
import { api, sentenceOf } from '../api.ts';
import { Button } from '../ui/button.tsx';
import { Notice } from '../ui/notice.tsx';
import { said, t } from '../words/words.ts';

const signs = {
  good: { Icon: Check, colour: 'text-settled', word: t('Good') },
  warns: { Icon: TriangleAlert, colour: 'text-warn', word: t('Look at this') },
  fails: { Icon: X, colour: 'text-stop', word: t('Wrong') },
} as const;

interface Props {
  readonly machine: Machine;
  /** Takes figures over that the machine tells of itself. */
  readonly takeFigures: (figures: Partial<Machine>) => void;
}

/** Tries how a machine is reached, and says step by step what was found. */
export function ConnectionTest({ machine, takeFigures }: Props) {
  const test = useMutation({ mutationFn: (tried: Machine) => api.testConnection(tried) });
  // What was found is of the connection that was tried, and of no other.
  const isOfThis = JSON.stringify(test.variables?.connection) === JSON.stringify(machine.connection);
  const found = isOfThis ? test.data : undefined;
  return (
    <div className="mt-3 border-t border-line pt-3">
      <Button
        disabled={test.isPending}
        onClick={() => test.mutate({ ...machine, name: machine.name.trim() || t('A new machine') })}
      >
        {test.isPending ? t('Testing…') : t('Test the connection')}
      </Button>
      <div role="status" aria-label={t('What the test found')}>
        {test.isError && isOfThis && (
          <div className="mt-2.5">
            <Notice level="blocks">{sentenceOf(test.error)}</Notice>
          </div>
        )}
        {found && (
          <ol className="mt-2.5 flex flex-col gap-1.5">
            {found.steps.map(({ level, message }) => {
              const { Icon, colour, word } = signs[level];
              return (
                <li key={message} className="flex gap-2">
                  <Icon size={16} className={`mt-0.5 shrink-0 ${colour}`} aria-label={word} />
                  <span>{message}</span>
                </li>
              );
            })}
          </ol>
        )}
      </div>
      {found && <Differences differences={toldDifferences(machine, found.figures)} takeFigures={takeFigures} />}
    </div>
  );
}

/** Figures that the machine tells otherwise than they stand here. */
function Differences({
  differences,
  takeFigures,
}: { differences: readonly ToldDifference[] } & Pick<Props, 'takeFigures'>) {
  if (differences.length === 0) return null;
  return (
    <div className="mt-3 rounded-lg border border-line bg-raised p-3">
      <table className="w-full text-[12.5px]">
        <thead>
          <tr className="text-left text-quiet">
            <th className="font-normal">{t('It tells of itself')}</th>
            <th className="text-right font-normal">{t('there')}</th>
            <th className="text-right font-normal">{t('here')}</th>
          </tr>
        </thead>
        <tbody className="figures">
          {differences.map(({ figure, here, there }) => (
            <tr key={figure} className="*:py-0.5">
              <td className="font-sans">{said(machineFigures[figure].name)}</td>
              <td className="text-right">{`${there} ${machineFigures[figure].unit}`.trim()}</td>
              <td className="text-right">{here ?? '—'}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <Button
        className="mt-2.5"
        onClick={() => takeFigures(Object.fromEntries(differences.map(({ figure, there }) => [figure, there])))}
      >
        {t('Take these figures over')}
      </Button>
    </div>
  );
}

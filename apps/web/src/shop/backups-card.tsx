import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Download } from 'lucide-react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { wholeDayAndTimeOf } from '../stores/dates.ts';
import { Button } from '../ui/button.tsx';
import { fixed } from '../ui/figures.ts';
import { NumberField } from '../ui/number-field.tsx';
import { t } from '../words/words.ts';
import { ShopCard } from './shop-card.tsx';

/** So many backups are listed. */
const mostListed = 8;

/** The copies of the shop: each night, for so many days, and whenever one asks. */
export function BackupsCard({ days, settle }: { days: number; settle: (days: number) => void }) {
  const queries = useQueryClient();
  const backups = useQuery({ queryKey: ['backups'], queryFn: api.backups });
  const make = useMutation({
    mutationFn: api.makeBackup,
    onSuccess: ({ name, bytes }) =>
      toast.success(t('{{name}}, {{bytes}}, is made, read again and whole.', { name, bytes: size(bytes) })),
    onError: (error) => toast.error(sentenceOf(error)),
    onSettled: () => queries.invalidateQueries({ queryKey: ['backups'] }),
  });
  const listed = backups.data?.slice(0, mostListed) ?? [];
  return (
    <ShopCard
      title={t('Backups')}
      about={t(
        'A copy of everything is made each night while Lambent runs, in its data folder. Take one to another disk now and then: a disk that fails takes both.',
      )}
    >
      <div className="flex flex-wrap items-end gap-3">
        <div className="w-44">
          <NumberField
            layout="stack"
            label={t('Nightly backups to keep (0: none are made)')}
            unit="days"
            whole
            value={days}
            least={0}
            most={365}
            commit={settle}
          />
        </div>
        <Button disabled={make.isPending} onClick={() => make.mutate()}>
          {make.isPending ? t('Making and checking it…') : t('Make one now')}
        </Button>
      </div>
      {backups.isError && <p className="mt-3 text-stop">{sentenceOf(backups.error)}</p>}
      {backups.data?.length === 0 && <p className="mt-3 text-quiet">{t('There is none yet.')}</p>}
      {listed.length > 0 && (
        <ul className="mt-3 flex flex-col" aria-label={t('Backups kept')}>
          {listed.map(({ name, madeAt, bytes }) => (
            <li key={name} className="flex items-center gap-3 border-t border-line py-1.5">
              <span className="min-w-0 flex-1 truncate">{wholeDayAndTimeOf(madeAt)}</span>
              <span className="figures shrink-0 text-[12px] text-quiet">{size(bytes)}</span>
              <a
                href={`/api/backups/${name}`}
                download={name}
                className="inline-flex items-center gap-1 font-semibold text-petrol underline"
                aria-label={t('Take out {{name}}', { name })}
              >
                <Download size={14} aria-hidden />
                {t('Take it out')}
              </a>
            </li>
          ))}
        </ul>
      )}
      {(backups.data?.length ?? 0) > mostListed && (
        <p className="text-[12px] text-quiet">
          {t('and {{data}} older ones', { data: (backups.data?.length ?? 0) - mostListed })}
        </p>
      )}
      <p className="mt-2 text-[12px] text-quiet">
        {t('To restore a backup, end Lambent and run this at the computer:')}{' '}
        <code>{t('npm run restore -- FILE')}</code>
      </p>
    </ShopCard>
  );
}

function size(bytes: number): string {
  return bytes < 1e6
    ? t('{{bytes}} kB', { bytes: Math.max(1, Math.round(bytes / 1000)) })
    : t('{{bytes}} MB', { bytes: fixed(bytes / 1e6, 1) });
}

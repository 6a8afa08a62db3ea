import { type ColourKey, keyFromText, keyToJson, standardLayers } from '@lambent/core/colours';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { ArrowDown, ArrowUp, Copy, Download, FileUp, Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { NavLink, useNavigate, useParams } from 'react-router';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { KeyEditor } from '../keys/key-editor.tsx';
import { KeyTrial } from '../keys/key-trial.tsx';
import { Button, IconButton } from '../ui/button.tsx';
import { downloadJson } from '../ui/download.ts';
import { FileButton } from '../ui/file-button.tsx';
import { Notice } from '../ui/notice.tsx';
import { PageBar } from '../ui/page-bar.tsx';
import { PageTitle } from '../ui/page-title.tsx';
import { t } from '../words/words.ts';

/** The shop's colour keys: made, copied, edited, ordered, tried on a drawing, taken in and out as files. */
export function KeysRoute() {
  const { keyId } = useParams();
  const keys = useQuery({ queryKey: ['keys'], queryFn: api.keys });
  const chosen = keys.data?.find(({ id }) => id === keyId) ?? keys.data?.[0];
  return (
    <div className="flex h-full flex-col">
      <PageTitle>{t('Colour keys')}</PageTitle>
      <PageBar />
      <main className="flex min-h-0 flex-1">
        <KeyList keys={keys.data ?? []} chosen={chosen?.id} />
        <div className="min-w-0 flex-1 overflow-auto">
          {keys.isError && (
            <div className="p-6">
              <Notice level="blocks">{sentenceOf(keys.error)}</Notice>
            </div>
          )}
          {chosen && <OneKey key={chosen.id} stored={chosen} />}
        </div>
      </main>
    </div>
  );
}

/** A key while it is edited: what is typed is a draft until it is saved. */
function OneKey({ stored }: { stored: ColourKey }) {
  const queries = useQueryClient();
  const [draft, setDraft] = useState(stored);
  const changed = draft !== stored;
  const save = useMutation({
    mutationFn: () => api.changeKey(draft),
    onSuccess: (key) => {
      queries.setQueryData<ColourKey[]>(['keys'], (known) =>
        known?.map((entry) => (entry.id === key.id ? key : entry)),
      );
      setDraft(key);
      toast.success(t('“{{name}}” is saved. Jobs that go by it follow it when they are opened.', { name: key.name }));
    },
    onError: (error) => toast.error(t('The key was not saved. {{error}}', { error: sentenceOf(error) })),
  });
  return (
    <div className="grid min-h-full grid-cols-[minmax(560px,1fr)_330px]">
      <div className="px-6 py-5">
        <KeyEditor draft={draft} change={setDraft} />
        <div className="sticky bottom-0 mt-4 flex items-center gap-2 border-t border-line bg-table py-3">
          <Button look="main" disabled={!changed || save.isPending} onClick={() => save.mutate()}>
            {save.isPending ? t('Saving…') : t('Save the key')}
          </Button>
          <Button disabled={!changed} onClick={() => setDraft(stored)}>
            {t('Take the changes back')}
          </Button>
          <span className="text-quiet">{changed ? t('Changed, not saved yet') : t('Saved')}</span>
        </div>
      </div>
      <KeyTrial keyOf={draft} />
    </div>
  );
}

function KeyList({ keys, chosen }: { keys: readonly ColourKey[]; chosen: string | undefined }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [going, setGoing] = useState<string | null>(null);
  const refresh = () => queries.invalidateQueries({ queryKey: ['keys'] });
  const attempt = async (what: string, work: () => Promise<string | undefined>) => {
    try {
      const next = await work();
      await refresh();
      if (next !== undefined) navigate(`/keys/${next}`);
    } catch (error) {
      toast.error(`${what} ${sentenceOf(error)}`);
    }
  };
  const add = (key: ColourKey) => attempt(t('The key was not made.'), async () => (await api.addKey(key)).id);
  const order = (id: string, delta: -1 | 1) => {
    const ids = keys.map((key) => key.id);
    const index = ids.indexOf(id);
    [ids[index], ids[index + delta]] = [ids[index + delta], ids[index]];
    void attempt(t('The order was not changed.'), async () => {
      await api.orderKeys(ids);
      return undefined;
    });
  };
  return (
    <aside className="flex w-[260px] shrink-0 flex-col border-r border-line bg-paper" aria-label={t('Colour keys')}>
      <div className="px-4 pb-2 pt-4">
        <h1 className="text-[16px] font-bold">{t('Colour keys')}</h1>
        <p className="text-quiet">{t('What colours mean. The first is the one new jobs get.')}</p>
      </div>
      <ul className="min-h-0 flex-1 overflow-y-auto px-2">
        {keys.map((key, i) => (
          <li key={key.id} className="group relative">
            <NavLink
              to={`/keys/${key.id}`}
              aria-current={key.id === chosen ? 'page' : undefined}
              className="block rounded-lg py-2 pl-2.5 pr-16 hover:bg-table aria-[current=page]:bg-petrol-soft"
            >
              <span className="block truncate font-semibold">{key.name}</span>
              <span className="block text-[12px] text-quiet">
                {key.rules.length} {key.rules.length === 1 ? t('rule') : t('rules')}
                {i === 0 && t(' · for new jobs')}
              </span>
            </NavLink>
            <span className="absolute right-1 top-2 flex opacity-0 focus-within:opacity-100 group-hover:opacity-100">
              <IconButton
                label={t('{{name}} up', { name: key.name })}
                className="size-7"
                disabled={i === 0}
                onClick={() => order(key.id, -1)}
              >
                <ArrowUp size={14} aria-hidden />
              </IconButton>
              <IconButton
                label={t('{{name}} down', { name: key.name })}
                className="size-7"
                disabled={i === keys.length - 1}
                onClick={() => order(key.id, 1)}
              >
                <ArrowDown size={14} aria-hidden />
              </IconButton>
            </span>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-1.5 border-t border-line p-3">
        <Button onClick={() => void add({ id: 'new', name: t('New key'), layers: standardLayers(), rules: [] })}>
          <Plus size={15} aria-hidden />
          {t('New key')}
        </Button>
        <Button
          disabled={!chosen}
          onClick={() => {
            const key = keys.find(({ id }) => id === chosen);
            if (key) void add({ ...key, name: t('{{name}}, copy', { name: key.name }) });
          }}
        >
          <Copy size={15} aria-hidden />
          {t('Copy')}
        </Button>
        <FileButton
          accept=".json,application/json"
          testId="key-file"
          take={(picked) =>
            void attempt(
              t('{{name}} was not taken.', { name: picked.name }),
              async () => (await api.addKey(keyFromText(await picked.text()))).id,
            )
          }
        >
          <FileUp size={15} aria-hidden />
          {t('From a file')}
        </FileButton>
        <Button
          disabled={!chosen}
          onClick={() => {
            const key = keys.find(({ id }) => id === chosen);
            if (key) downloadJson(keyToJson(key), key.name);
          }}
        >
          <Download size={15} aria-hidden />
          {t('To a file')}
        </Button>
        {going === chosen && chosen ? (
          <Button
            look="danger"
            onClick={() =>
              void attempt(t('The key stays.'), async () => {
                await api.removeKey(chosen);
                setGoing(null);
                return '';
              })
            }
          >
            {t('Remove it for good')}
          </Button>
        ) : (
          <Button disabled={!chosen || keys.length < 2} onClick={() => setGoing(chosen ?? null)}>
            <Trash2 size={15} aria-hidden />
            {t('Remove')}
          </Button>
        )}
      </div>
    </aside>
  );
}

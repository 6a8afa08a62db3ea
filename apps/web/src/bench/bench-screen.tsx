import { landingWords } from '@lambent/core/document';
import { PanelLeftClose, PanelLeftOpen } from 'lucide-react';
import { type DragEvent, useCallback, useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { filesOfDrop } from '../dropped/files-of-drop.ts';
import { takeJobLengthUnit } from '../stores/length-unit.ts';
import { IconButton } from '../ui/button.tsx';
import { isInField } from '../ui/in-field.ts';
import { PageTitle } from '../ui/page-title.tsx';
import { said, t } from '../words/words.ts';
import { acceptedFiles, filesPasted } from './arriving/accepted.ts';
import { offerFiles } from './arriving/arriving.ts';
import { takeFilesFor } from './arriving/files-for-job.ts';
import { BedView } from './bed/bed-view.tsx';
import { BedTwin } from './bed-twin.tsx';
import { BenchNews } from './bench-news.tsx';
import { PictureChip } from './burnt/picture-chip.tsx';
import { useClipboard } from './clipboard/use-clipboard.ts';
import { ColourLegend } from './colour-legend.tsx';
import { useBench, useBenchActions, useBenchSubscribe } from './context.ts';
import { GroupChip } from './group-chip.tsx';
import { useLeft } from './left/use-left.ts';
import { useOwnKeys } from './own-keys.ts';
import { useCardPlace } from './size/card-place.ts';
import { SkipLinks } from './skip-links.tsx';
import { StageRail } from './stage-rail.tsx';
import { fetchLaterDrawers, laterPart, laterView } from './stages/later-drawer.tsx';
import type { Stage } from './stages/stage.ts';
import { stages } from './stages/stages.ts';
import { unitOf } from './state/document.ts';
import { BurnStrip } from './strip/burn-strip.tsx';
import { chooseTool } from './tools/choose.ts';
import { DraftEntry } from './tools/draft-entry.tsx';
import { PointEntry } from './tools/point-entry.tsx';
import { ToolCard } from './tools/tool-card.tsx';
import { ToolDock } from './tools/tool-dock.tsx';
import { useKeptOptions } from './tools/use-kept-options.ts';
import { TopBar } from './top-bar.tsx';
import { useAutosave } from './use-autosave.ts';
import { useFreshening } from './use-freshening.ts';
import { useMachines } from './use-machines.ts';
import { useOtherWindows } from './use-other-windows.ts';
import { usePlanning } from './use-planning.ts';
import { useShortcuts } from './use-shortcuts.ts';
import { ViewDock } from './view-dock.tsx';

const ContextMenu = laterPart(async () => (await import('../ui/context-menu.tsx')).ContextMenu);
const ConflictBar = laterPart(async () => (await import('./conflict-bar.tsx')).ConflictBar);
const KeySheet = laterPart(async () => (await import('./key-sheet.tsx')).KeySheet);
const MovedCard = laterPart(async () => (await import('./moved-card.tsx')).MovedCard);
const SizeCard = laterPart(async () => (await import('./size/size-card.tsx')).SizeCard);
const DistanceReadout = laterPart(async () => (await import('./distance-readout.tsx')).DistanceReadout);
const AskCard = laterPart(async () => (await import('./ask-card.tsx')).AskCard);
const BurntSplit = laterPart(async () => (await import('./stages/art/picture/burnt-split.tsx')).BurntSplit);

const ReadingView = laterView(async () => (await import('./card/reading-view.tsx')).ReadingView);

/** One job on the Bench: bar, rail, drawer, bed and strip. */
export function BenchScreen({ stage, reload }: { stage: Stage; reload: () => void }) {
  const { Drawer } = stages[stage];
  const actions = useBenchActions();
  const subscribe = useBenchSubscribe();
  const title = useBench((state) => state.title);
  const unit = useBench(unitOf);
  useEffect(() => {
    takeJobLengthUnit(unit);
    return () => takeJobLengthUnit(null);
  }, [unit]);
  const [folded, setFolded] = useState(false);
  const [keys, setKeys] = useState(false);
  const showKeys = useCallback(() => setKeys(true), []);
  const offer = useFiles();
  const reading = useBench((state) => state.readCard !== null) && stage === 'recipe';
  // While points are at hand, places and sizes typed are theirs.
  const showsSize = useBench((state) => state.tool?.name !== 'points') && !reading;
  const isDocked = useCardPlace((card) => card.isDocked);
  // Buttons say the keys that do the same, as they are here.
  useOwnKeys();
  useKeptOptions();
  useAutosave(actions, subscribe);
  useOtherWindows(actions, subscribe);
  useLeft(actions, subscribe, stage);
  usePlanning(actions, subscribe);
  useFreshening(actions, subscribe);
  useMachines(actions);
  useShortcuts(actions, showKeys);
  useClipboard(actions);
  useEffect(fetchLaterDrawers, []);
  // A row that goes away while the pointer is on it does not say that the pointer has left.
  useEffect(() => {
    actions.pointOut([]);
    // The drawing tools belong to the Art stage.
    if (stage !== 'art') chooseTool(actions, 'pick');
  }, [stage, actions]);

  const drop = (event: DragEvent) => {
    if (!event.dataTransfer.types.includes('Files')) return;
    event.preventDefault();
    if (event.type === 'drop') void filesOfDrop(event.dataTransfer).then(({ files }) => offer(files));
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: dropping has a button beside it that does the same
    <div className="flex h-full min-w-[600px] flex-col" onDragOver={drop} onDrop={drop}>
      <PageTitle>{title}</PageTitle>
      <SkipLinks />
      <BedTwin />
      <BenchNews />
      <TopBar />
      <ConflictBar reload={reload} />
      <div className="flex min-h-0 flex-1">
        <StageRail />
        {!folded && (
          <div className="flex h-full shrink-0 flex-col">
            <div className="min-h-0 flex-1">
              <Drawer />
            </div>
            {showsSize && isDocked && <SizeCard stage={stage} isDocked />}
          </div>
        )}
        <main className="relative min-w-0 flex-1">
          {reading ? (
            <ReadingView />
          ) : (
            <BedPlace stage={stage} offer={offer} showKeys={showKeys} floats={showsSize && (folded || !isDocked)} />
          )}
          <IconButton
            label={folded ? t('Unfold the drawer') : t('Fold the drawer')}
            onClick={() => setFolded(!folded)}
            className="absolute left-8 top-8 z-10 border border-line bg-paper"
          >
            {folded ? <PanelLeftOpen size={16} aria-hidden /> : <PanelLeftClose size={16} aria-hidden />}
          </IconButton>
        </main>
        {!reading && <ColourLegend isArt={stage === 'art'} />}
      </div>
      <BurnStrip />
      <ContextMenu />
      <KeySheet open={keys} close={() => setKeys(false)} />
    </div>
  );
}

/** The bed with everything that floats over it. */
function BedPlace(props: {
  stage: Stage;
  offer: (files: readonly File[]) => void;
  showKeys: () => void;
  /** Whether the size card floats over the bed. */
  floats: boolean;
}) {
  const { stage, offer, showKeys, floats } = props;
  // A text is opened from wherever it is looked at.
  const writing = useBench((state) => state.textEdit !== null);
  return (
    <>
      <BedView asBurnt={stage === 'check' || stage === 'burn'} />
      {stage === 'art' && <BurntSplit />}
      {floats && <SizeCard stage={stage} isDocked={false} />}
      {stage === 'art' && <DistanceReadout />}
      <RunChip />
      <GroupChip />
      <PictureChip />
      <DraftEntry />
      <PointEntry />
      <div className="pointer-events-none absolute inset-x-0 bottom-3 z-10 flex flex-col items-center gap-2">
        <div className="pointer-events-auto">
          {(stage === 'art' || writing) && <ToolCard />}
          <AskCard />
          <MovedCard />
        </div>
        <div className="flex max-w-full flex-wrap items-center justify-center gap-2 px-2 *:pointer-events-auto">
          {stage === 'art' && <ToolDock />}
          <ViewDock showKeys={showKeys} />
        </div>
      </div>
      <EmptyBed offer={offer} />
    </>
  );
}

/** Says on the bed that the run looked at does not burn as it is drawn. */
function RunChip() {
  const run = useBench((state) => state.prepared.run);
  const words = [
    ...(run.mirrored ? [t('mirrored for the back')] : []),
    ...(run.landing.kind === 'as-drawn'
      ? []
      : [t('burns {{landingWords}}', { landingWords: said(landingWords[run.landing.kind]) })]),
  ];
  if (words.length === 0) return null;
  return (
    <p
      data-testid="run-chip"
      className="pointer-events-none absolute left-1/2 top-8 z-10 -translate-x-1/2 rounded-full border border-warn/40 bg-warn-soft px-3 py-1 font-semibold text-warn"
    >
      {run.name}: {words.join(', ')}
    </p>
  );
}

/** Takes files that are dropped, pasted or chosen to the Art stage, where their cards are. */
function useFiles() {
  const actions = useBenchActions();
  const navigate = useNavigate();
  const offer = useCallback(
    (files: readonly File[]) => {
      if (files.length === 0) return;
      navigate(`/jobs/${actions.get().jobId}/art`, { replace: true });
      void offerFiles(actions, files);
    },
    [actions, navigate],
  );
  useEffect(() => offer(takeFilesFor(actions.get().jobId)), [actions, offer]);
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      if (isInField(event) || !event.clipboardData || event.defaultPrevented) return;
      const files = filesPasted(event.clipboardData);
      if (files.length > 0) event.preventDefault();
      offer(files);
    };
    window.addEventListener('paste', paste);
    return () => window.removeEventListener('paste', paste);
  }, [offer]);
  return offer;
}

/** What to do first, where nothing is drawn. */
function EmptyBed({ offer }: { offer: (files: readonly File[]) => void }) {
  const empty = useBench(
    ({ history, incoming, tool, draft }) =>
      history.present.drawing.items.length === 0 &&
      incoming.arriving === null &&
      draft === null &&
      tool?.name === 'pick',
  );
  if (!empty) return null;
  return (
    <div className="pointer-events-none absolute inset-0 flex items-center justify-center">
      <label className="pointer-events-auto cursor-pointer rounded-xl border border-line bg-paper px-6 py-4 text-center shadow-float hover:border-petrol">
        <p className="text-[15px] font-bold">{t('Drop a drawing here')}</p>
        <p className="text-quiet">{t('or click to choose one')}</p>
        <input
          type="file"
          accept={acceptedFiles}
          className="sr-only"
          onChange={(event) => offer([...(event.target.files ?? [])])}
        />
      </label>
    </div>
  );
}

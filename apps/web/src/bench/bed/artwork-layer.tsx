import { verbsOf } from '@lambent/core/document';
import type { PreparedJob } from '@lambent/core/plan';
import { memo, useCallback, useEffect, useMemo, useState } from 'react';
import { t } from '../../words/words.ts';
import { paintedArtwork } from '../../workers/work.ts';
import { useBench } from '../context.ts';
import { useShownRun } from '../use-shown-run.ts';
import { ArtworkPainter } from './artwork-painter.ts';
import { farFrom } from './far-picture.ts';
import { Layer, Shape, Text } from './konva.ts';
import type { ArtworkWish } from './painting.ts';
import { sceneOf } from './scene.ts';
import { useFarPicture } from './use-far-picture.ts';
import { usePictures } from './use-pictures.ts';
import type { View } from './view.ts';

/** Artwork of more nodes than this has fine lines, is moved as one picture while the view moves, and drawn afresh after. */
const manyNodes = 12_000;
const crispAfterMs = 120;

interface ArtworkProps {
  readonly size: { readonly width: number; readonly height: number };
  readonly ink: string;
  readonly asBurnt: boolean;
}

/** The artwork, faint behind a preview, a run or what is arriving. It is not drawn again with every word from the machine. */
export function ArtworkLayer(props: ArtworkProps) {
  const previewed = useBench((state) => state.previewS !== null);
  const run = useShownRun();
  const arriving = useBench((state) => state.incoming.arriving !== null);
  const pictured = useBench((state) => state.pictured !== null);
  const isFar = useBench((state) => verbsOf(state.prepared.job.drawing.items) > farFrom);
  if (pictured) return null;
  const faint = previewed || run !== null || arriving;
  return isFar ? <FarArtwork {...props} faint={faint} /> : <NearArtwork {...props} faint={faint} />;
}

/** The view, as it is when it has not moved for a moment. */
function useCrispView(): View {
  const view = useBench((state) => state.view);
  const [crispView, setCrispView] = useState(view);
  useEffect(() => {
    const timer = window.setTimeout(() => setCrispView(view), crispAfterMs);
    return () => window.clearTimeout(timer);
  }, [view]);
  return crispView;
}

/** What of the Bench's state is to be seen of the artwork. */
function useArtworkState() {
  const view = useBench((state) => state.view);
  const prepared = useBench((state) => state.prepared);
  const selection = useBench((state) => state.selection);
  const pointedOut = useBench((state) => state.pointedOut);
  const live = useBench((state) => state.live);
  const as = useBench((state) => state.look);
  return { view, crispView: useCrispView(), prepared, selection, pointedOut, live, as };
}

/** While the view moves, artwork that is slow to draw is shown as the last picture, moved along. */
const NearArtwork = memo(function NearArtwork(props: ArtworkProps & { faint: boolean }) {
  const { size, ink, faint, asBurnt } = props;
  const { view, crispView, prepared, selection, pointedOut, live, as } = useArtworkState();
  const pictures = usePictures();
  const painter = useMemo(() => new ArtworkPainter(), []);
  const heavy = verbsOf(prepared.job.drawing.items) > manyNodes;

  return (
    <Layer listening={false}>
      <Shape
        sceneFunc={(context) => {
          const target = context._context;
          const scene = sceneOf(prepared, asBurnt);
          const look = { selection, pointedOut, live, as, ink, faint, fine: heavy };
          const ratio = window.devicePixelRatio || 1;
          const base = { ...size, ratio, as, ink, faint, fine: heavy, pictures };
          if (heavy && view !== crispView && painter.showsAllBut(scene, look, base)) painter.drawMoved(target, view);
          else painter.draw(target, scene, look, { ...base, view });
        }}
      />
    </Layer>
  );
});

interface JobWish extends ArtworkWish {
  readonly prepared: PreparedJob;
}

/** Artwork that is too much to draw within a frame: a worker paints it. */
const FarArtwork = memo(function FarArtwork(props: ArtworkProps & { faint: boolean }) {
  const { size, ink, faint, asBurnt } = props;
  const { view, crispView, prepared, selection, pointedOut, live, as } = useArtworkState();
  const shop = useBench((state) => state.shop);
  const paint = useCallback(({ prepared, ...wish }: JobWish) => paintedArtwork(prepared, shop, wish), [shop]);
  const picture = useFarPicture<JobWish>(
    {
      view: crispView,
      width: size.width,
      height: size.height,
      ratio: window.devicePixelRatio || 1,
      as,
      ink,
      faint,
      asBurnt,
      pointedOut,
      lifted: live ? selection : null,
      prepared,
    },
    paint,
  );
  return (
    <Layer listening={false}>
      <Shape sceneFunc={({ _context: target }) => picture.draw(target, view, live)} />
      <FarWords size={size} ink={ink} trouble={picture.trouble} hasPicture={picture.hasPicture} />
    </Layer>
  );
});

/** What is said on the bed while there is no picture. */
export function FarWords(props: {
  size: { width: number; height: number };
  ink: string;
  trouble: string | null;
  hasPicture: boolean;
}) {
  const { size, ink, trouble, hasPicture } = props;
  if (hasPicture && trouble === null) return null;
  return (
    <Text
      text={trouble === null ? t('Drawing it…') : t('This cannot be shown now. {{trouble}}', { trouble })}
      y={size.height / 2 - 8}
      width={size.width}
      align="center"
      fontSize={14}
      fontFamily="Atkinson Hyperlegible Next Variable"
      fill={ink}
    />
  );
}

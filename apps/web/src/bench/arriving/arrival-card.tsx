import { LoaderCircle } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { Button } from '../../ui/button.tsx';
import { t } from '../../words/words.ts';
import { useBench, useBenchActions } from '../context.ts';
import { Drawer } from '../stages/drawer.tsx';
import type { Arriving } from '../state/arriving.ts';
import { ArrivalPicture } from './arrival-picture.tsx';
import { PlacePart } from './arrival-place.tsx';
import { ReadingPart } from './arrival-reading.tsx';
import { Report, ReportSummary } from './arrival-report.tsx';
import { SizePart } from './arrival-size.tsx';
import { readNext, take } from './arriving.ts';
import { KeyOffer } from './key-offer.tsx';

/** What a file holds, how large it is and where it goes, before any of it is in the job. */
export function ArrivalCard({ arriving }: { arriving: Arriving }) {
  const actions = useBenchActions();
  const reading = useBench((state) => state.incoming.reading);
  const waiting = useBench((state) => state.incoming.waiting.length);
  const { file, again, taking } = arriving;
  const count = arriving.reading.drawing.items.filter((item) => !item.hidden).length;
  const report = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && event.target.closest('input, [role=listbox]');
      if (event.key === 'Escape' && !typing) void readNext(actions);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [actions]);
  return (
    <Drawer
      title={again ? t('Read again') : t('Arriving')}
      aside={waiting > 0 ? t(waiting === 1 ? '1 more waits' : '{{waiting}} more wait', { waiting }) : undefined}
      foot={
        <div className="grid grid-cols-2 gap-2">
          <Button onClick={() => void readNext(actions)} disabled={taking}>
            {again ? t('Leave as it is') : t('Leave it')}
          </Button>
          <Button
            look="main"
            autoFocus
            disabled={taking || reading !== null || arriving.reading.drawing.items.length === 0}
            onClick={() => void take(actions)}
          >
            {taking ? t('Taking…') : again ? t('Take it this way') : t('Take it')}
          </Button>
        </div>
      }
    >
      <div>
        <p className="truncate font-semibold" title={file.name}>
          {file.name}
        </p>
        <p className="figures text-[12px] text-quiet" data-testid="arrival-count">
          {count} {count === 1 ? t('item') : t('items')} · {formatNames[arriving.reading.format]}
        </p>
        <ReportSummary notes={arriving.reading.notes} show={() => report.current?.scrollIntoView({ block: 'start' })} />
      </div>
      <div className="relative">
        <ArrivalPicture arriving={arriving} />
        {reading && (
          <div
            className="absolute inset-0 flex items-center justify-center gap-2 rounded-[10px] bg-paper/80"
            role="status"
          >
            <LoaderCircle size={16} className="animate-spin text-petrol" aria-hidden />
            {t('Reading again…')}
          </div>
        )}
      </div>
      <KeyOffer arriving={arriving} />
      <SizePart arriving={arriving} />
      <PlacePart arriving={arriving} />
      <ReadingPart arriving={arriving} />
      <div ref={report}>
        <Report reading={arriving.reading} />
      </div>
    </Drawer>
  );
}

const formatNames = { svg: 'SVG', dxf: 'DXF', pdf: 'PDF', picture: 'picture', stl: 'STL' };

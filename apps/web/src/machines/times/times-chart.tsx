import type { RunAnswer } from '@lambent/contracts';
import { ScatterChart } from 'echarts/charts';
import { GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { format, init, use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';
import { inSentence } from '../../stores/numbers.ts';
import { axisInk, ink } from '../../ui/chart-ink.ts';
import { formatDuration } from '../../ui/figures.ts';
import { t } from '../../words/words.ts';

use([ScatterChart, GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent, CanvasRenderer]);

/** Times that are off by less than this, in %, hold. */
const holds = 2;
/** The axis shows at least so much, in %. */
const leastShown = 5;

interface Props {
  readonly runs: readonly RunAnswer[];
  /** Runs before that moment do not count. */
  readonly since: string | undefined;
}

/** What runs took, each against what was planned, one after the other. */
export default function TimesChart({ runs, since }: Props) {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!place.current) return;
    const chart = init(place.current);
    chart.setOption(optionFor(runs, since));
    const follow = new ResizeObserver(() => chart.resize());
    follow.observe(place.current);
    return () => {
      follow.disconnect();
      chart.dispose();
    };
  }, [runs, since]);
  return (
    <div
      ref={place}
      role="img"
      aria-label={t('What {{runs}} took, against what was planned, in per cent', {
        runs: runs.length === 1 ? t('one run') : t('{{runs}} runs', { runs: runs.length }),
      })}
      className="mb-2 h-[170px] w-full"
    />
  );
}

function optionFor(runs: readonly RunAnswer[], since: string | undefined) {
  const inOrder = runs.toSorted((a, b) => a.startedAt.localeCompare(b.startedAt)).slice(-40);
  const data = inOrder.map((run, i) => ({
    value: [i + 1, Number((100 * (run.machineS / run.plannedS - 1)).toFixed(2))],
    name: `${format.encodeHTML(run.jobTitle)}<br>${formatDuration(run.plannedS)} planned, ${formatDuration(run.machineS)} taken`,
    itemStyle: { opacity: since === undefined || run.startedAt >= since ? 1 : 0.35 },
  }));
  const most = Math.max(leastShown, ...data.map(({ value }) => Math.abs(value[1])));
  const end = Math.ceil(most / 5) * 5;
  return {
    animation: false,
    color: ['#0E6570'],
    textStyle: { fontFamily: getComputedStyle(document.body).fontFamily, color: ink() },
    grid: { left: 46, right: 10, top: 24, bottom: 34 },
    tooltip: { trigger: 'item', formatter: ({ name }: { name: string }) => inSentence(name) },
    xAxis: {
      type: 'value',
      min: 0,
      max: Math.max(5, data.length + 1),
      name: t('Runs, the last one to the right'),
      nameLocation: 'middle',
      nameGap: 12,
      ...axisInk(),
      axisLabel: { show: false },
      splitLine: { show: false },
    },
    yAxis: {
      type: 'value',
      min: -end,
      interval: end / 2,
      max: end,
      name: t('Longer than planned, %'),
      nameGap: 10,
      ...axisInk(),
      nameTextStyle: { align: 'left', color: ink() },
    },
    series: [
      {
        type: 'scatter',
        symbolSize: 9,
        data,
        markLine: {
          symbol: 'none',
          silent: true,
          label: { show: false },
          lineStyle: { color: ink(), type: 'solid', width: 1 },
          data: [{ yAxis: 0 }],
        },
        markArea: {
          silent: true,
          itemStyle: { color: '#0E6570', opacity: 0.12 },
          data: [[{ yAxis: -holds }, { yAxis: holds }]],
        },
      },
    ],
  };
}

import { BarChart as Bars } from 'echarts/charts';
import { GridComponent, LegendComponent, TooltipComponent } from 'echarts/components';
import { format, init, use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';
import { inSentence } from '../stores/numbers.ts';
import { axisInk, ink } from '../ui/chart-ink.ts';

use([Bars, GridComponent, LegendComponent, TooltipComponent, CanvasRenderer]);

/** Bars of one kind, with a value for each place along the axis. */
interface BarSeries {
  readonly name: string;
  readonly values: readonly number[];
}

/** What bars show. */
export interface BarChartProps {
  /** What it shows, with its unit. */
  readonly label: string;
  readonly places: readonly string[];
  readonly series: readonly BarSeries[];
  /** Bars of a place stand on each other. */
  readonly stacked?: boolean;
  /** Bars lie, so that there is room for the names of their places. */
  readonly lying?: boolean;
  /** Of the values, such as `h`. */
  readonly unit: string;
  /** A value in words. */
  readonly wordsOf: (value: number) => string;
}

/** Told apart in light and dark, and by those who see red and green alike. */
const colours = ['#0E6570', '#F0A63A', '#8C6BD8', '#3AA58A', '#D0481E', '#7A8C94'];

/** How high a row of lying bars is for each of its bars, in pixels. */
const rowPx = 16;

/** Bars over places; the same figures stand in a table beside it. */
export default function BarChart({ label, places, series, stacked, lying, unit, wordsOf }: BarChartProps) {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!place.current) return;
    const chart = init(place.current);
    const told = ({ seriesName, name, value }: { seriesName: string; name: string; value: number }) =>
      inSentence(format.encodeHTML(`${name}, ${seriesName}: ${wordsOf(value)}`));
    const { nameTextStyle, splitLine, axisLabel } = axisInk();
    // Names are no numbers: they are written as they are.
    const named = {
      type: 'category' as const,
      data: [...places],
      axisLabel: {
        color: axisLabel.color,
        width: lying ? 150 : undefined,
        overflow: lying ? ('truncate' as const) : undefined,
      },
      axisTick: { show: false },
    };
    const valued = { type: 'value' as const, name: unit, nameTextStyle, splitLine, axisLabel };
    chart.setOption({
      animation: false,
      color: colours,
      textStyle: { fontFamily: getComputedStyle(document.body).fontFamily, color: ink() },
      grid: { left: 8, right: 8, top: lying ? 34 : 52, bottom: 8, containLabel: true },
      legend: { top: 0, left: 0, icon: 'rect', itemWidth: 12, itemHeight: 12, textStyle: { color: ink() } },
      tooltip: { trigger: 'item', formatter: told },
      ...(lying ? { yAxis: { ...named, inverse: true }, xAxis: valued } : { xAxis: named, yAxis: valued }),
      series: series.map(({ name, values }) => ({
        type: 'bar',
        name,
        data: values,
        barMaxWidth: lying ? 14 : 36,
        ...(stacked ? { stack: 'all' } : {}),
      })),
    });
    const follow = new ResizeObserver(() => chart.resize());
    follow.observe(place.current);
    return () => {
      follow.disconnect();
      chart.dispose();
    };
  }, [places, series, stacked, lying, unit, wordsOf]);
  const height = lying ? 70 + places.length * rowPx * series.length : 240;
  return <div ref={place} role="img" aria-label={label} className="w-full" style={{ height }} />;
}

import type { CardMark, CardSetting } from '@lambent/core/document';
import { type CardCell, cardSettingOf, cellName, marginsAround, markNames } from '@lambent/core/recipes';
import { CustomChart, LineChart, ScatterChart } from 'echarts/charts';
import { GridComponent, LegendComponent, TooltipComponent } from 'echarts/components';
import { init, use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';
import { inSentence } from '../../stores/numbers.ts';
import { axisInk, ink } from '../../ui/chart-ink.ts';
import { t } from '../../words/words.ts';
import { markLook } from './marks.tsx';
import type { ReadCard } from './reading.ts';

use([CustomChart, LineChart, ScatterChart, GridComponent, LegendComponent, TooltipComponent, CanvasRenderer]);

const symbols = { under: 'rect', good: 'circle', over: 'triangle', best: 'diamond' } as const;

/** The marks of a card where its settings lie, with the region that does, and the best cell in it. */
export default function MarksChart({ read }: { read: ReadCard }) {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!place.current) return;
    const chart = init(place.current);
    chart.setOption(optionFor(read));
    const follow = new ResizeObserver(() => chart.resize());
    follow.observe(place.current);
    return () => {
      follow.disconnect();
      chart.dispose();
    };
  }, [read]);
  const good = Object.values(read.laid.marks).filter((mark) => mark === 'good').length;
  return (
    <div
      ref={place}
      role="img"
      aria-label={t('The card’s grades where their settings lie; {{good}} cells are good', { good })}
      className="h-[220px] w-full"
    />
  );
}

/** From where to where a value stands for a region: halfway to its neighbours. */
function reachOf(values: readonly number[], i: number): [number, number] {
  const gap = values.length > 1 ? Math.abs(values[1] - values[0]) : Math.abs(values[0]) || 1;
  const [before, after] = [values[i - 1] ?? values[i] - gap, values[i + 1] ?? values[i] + gap];
  return [(values[i] + before) / 2, (values[i] + after) / 2];
}

function optionFor({ laid, card }: ReadCard) {
  const { wish, marks, best } = laid;
  const rows = wish.down ? card.rows : [0];
  const { operation } = wish;
  const names = markNames(operation);
  const place = ({ column, row }: CardCell) => [card.columns[column], rows[row]];
  const pointsOf = (mark: CardMark | 'best') =>
    card.cells.filter(({ key }) => (key === best ? mark === 'best' : marks[key] === mark));
  const scatter = (mark: CardMark | 'best') => ({
    type: 'scatter',
    name: mark === 'best' ? t('the best') : names[mark],
    symbol: symbols[mark],
    symbolSize: mark === 'best' ? 18 : 11,
    itemStyle: { color: markLook[mark].colour },
    data: pointsOf(mark).map((cell) => ({ value: place(cell), name: cellName(wish, card, cell) })),
    z: 3,
  });
  const region = {
    type: 'custom',
    name: t('region that does'),
    silent: true,
    data: [...pointsOf('good'), ...pointsOf('best')].map((cell) => [
      ...reachOf(card.columns, cell.column),
      ...reachOf(rows, cell.row),
    ]),
    renderItem: (_: unknown, point: { value: (i: number) => number; coord: (index: number[]) => number[] }) => {
      const [x0, y0] = point.coord([point.value(0), point.value(2)]);
      const [x1, y1] = point.coord([point.value(1), point.value(3)]);
      const [x, y] = [Math.min(x0, x1), Math.min(y0, y1)];
      return {
        type: 'rect',
        shape: { x, y, width: Math.abs(x1 - x0) + 0.5, height: Math.abs(y1 - y0) + 0.5 },
        style: { fill: markLook.good.colour, opacity: 0.14 },
      };
    },
    z: 1,
  };
  // How far each setting can go from the best cell: a bar through it along each side.
  const chosen = card.cells.find(({ key }) => key === best);
  const margins = chosen
    ? marginsAround(laid, card, chosen).map(({ setting, from, to }, i) => {
        const [x, y] = place(chosen);
        const ends =
          setting === wish.across.setting && i === 0
            ? [
                [from, y],
                [to, y],
              ]
            : [
                [x, from],
                [x, to],
              ];
        return {
          type: 'line',
          name: 'margin',
          data: ends,
          symbol: 'none',
          silent: true,
          lineStyle: { color: markLook.best.colour, width: 4, opacity: 0.55 },
          z: 2,
        };
      })
    : [];
  const axis = (setting: CardSetting, values: readonly number[], gap: number) => {
    const { name, counted } = cardSettingOf(setting);
    const [low] = reachOf(values, values[0] <= (values.at(-1) ?? 0) ? 0 : values.length - 1).toSorted((a, b) => a - b);
    const [, high] = reachOf(values, values[0] <= (values.at(-1) ?? 0) ? values.length - 1 : 0).toSorted(
      (a, b) => a - b,
    );
    return {
      type: 'value',
      min: Number(low.toPrecision(3)),
      max: Number(high.toPrecision(3)),
      name: `${name}, ${counted}`,
      nameLocation: 'middle',
      nameGap: gap,
      ...axisInk(),
      axisLabel: { ...axisInk().axisLabel, showMinLabel: false, showMaxLabel: false },
    };
  };
  const series = (['under', 'good', 'over', 'best'] as const).map(scatter);
  return {
    animation: false,
    textStyle: { fontFamily: getComputedStyle(document.body).fontFamily, color: ink() },
    grid: { left: 60, right: 24, top: 34, bottom: 42 },
    legend: { top: 0, textStyle: { color: ink() }, data: series.map(({ name }) => name) },
    tooltip: { trigger: 'item', formatter: ({ name }: { name: string }) => inSentence(name) },
    xAxis: axis(wish.across.setting, card.columns, 26),
    yAxis: wish.down ? axis(wish.down.setting, rows, 42) : { type: 'value', min: -1, max: 1, show: false },
    series: [region, ...margins, ...series],
  };
}

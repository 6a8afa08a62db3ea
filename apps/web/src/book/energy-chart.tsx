import { type Machine, wattsOf } from '@lambent/core/machine';
import { type Burn, energyPerMm, type Material } from '@lambent/core/recipes';
import { LineChart, ScatterChart } from 'echarts/charts';
import { GridComponent, LegendComponent, TooltipComponent } from 'echarts/components';
import { format, init, use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';
import { inSentence, written } from '../stores/numbers.ts';
import { axisInk, ink } from '../ui/chart-ink.ts';
import { asLength } from '../ui/figures.ts';
import { t } from '../words/words.ts';

use([LineChart, ScatterChart, GridComponent, LegendComponent, TooltipComponent, CanvasRenderer]);

/** Energies per length, in J/mm, of which lines are drawn: those that the chart has room for. */
const energies = [0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50];
const symbols = ['circle', 'rect', 'triangle', 'diamond'];

interface Props {
  /** The material whose burns stand out. */
  material: Material;
  burns: readonly Burn[];
  machines: readonly Machine[];
}

/** The power of the beam against the speed at which it burns, with lines of one energy per length. */
export default function EnergyChart({ material, burns, machines }: Props) {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!place.current || burns.length === 0) return;
    const chart = init(place.current);
    chart.setOption(optionFor(burns, machines, material));
    const follow = new ResizeObserver(() => chart.resize());
    follow.observe(place.current);
    return () => {
      follow.disconnect();
      chart.dispose();
    };
  }, [burns, machines, material]);
  if (burns.length === 0) return <p className="py-3 text-quiet">{t('There is nothing to compare yet.')}</p>;
  return (
    <div
      ref={place}
      role="img"
      aria-label={t('Power against speed of {{burns}} recipes, with lines of one energy per length', {
        burns: burns.length,
      })}
      className="h-[280px] w-full"
    />
  );
}

/** Where a recipe stands: how fast the head goes for each time round, against the watts of its beam. */
function pointOf({ machine, recipe, material }: Burn, chosen: Material) {
  const watts = (wattsOf(machine) * recipe.powerPercent) / 100;
  const energy = energyPerMm(recipe, wattsOf(machine));
  const speed = recipe.speedMmPerS / recipe.passes;
  const variant = recipe.variant ? `, ${recipe.variant}` : '';
  const title = format.encodeHTML(`${material.name} ${asLength(material.thicknessMm)}${variant}`);
  const isChosen = material === chosen;
  return {
    value: [speed, watts],
    name: `${title}<br>${format.encodeHTML(machine.name)}, ${recipe.powerPercent} % (${figure(watts)} W), ${recipe.speedMmPerS} mm/s${recipe.passes > 1 ? t(', {{passes}} passes', { passes: recipe.passes }) : ''}<br>${figure(energy)} J/mm, ${recipe.evidence}`,
    symbolSize: isChosen ? 14 : 9,
    itemStyle: {
      opacity: recipe.evidence === 'proven' ? 1 : 0.45,
      borderColor: ink(),
      borderWidth: isChosen ? 1.5 : 0,
    },
    label: { show: true, formatter: asLength(material.thicknessMm), position: 'right', fontSize: 12, color: ink() },
  };
}

function figure(value: number): number {
  return Number(value.toPrecision(3));
}

/** The next round number, of which an axis can be the whole. */
function endOfAxis(value: number): number {
  const step = 10 ** Math.floor(Math.log10(value)) / 2;
  return Math.ceil(value / step) * step;
}

function optionFor(burns: readonly Burn[], machines: readonly Machine[], chosen: Material) {
  const points = burns.map((burn) => ({ burn, point: pointOf(burn, chosen) }));
  const fastest = endOfAxis(1.08 * Math.max(...points.map(({ point }) => point.value[0])));
  const strongest = endOfAxis(1.08 * Math.max(...points.map(({ point }) => point.value[1])));
  const within = burns.map(({ machine, recipe }) => energyPerMm(recipe, wattsOf(machine)));
  const [least, most] = [Math.min(...within) / 1.8, Math.max(...within) * 1.8];
  const lines = energies
    .filter((energy) => energy > least && energy < most)
    .map((energy) => {
      const end = Math.min(fastest, strongest / energy);
      return {
        type: 'line',
        data: [
          [0, 0],
          [end, end * energy],
        ],
        symbol: 'none',
        silent: true,
        lineStyle: { color: '#B9B2A2', type: 'dashed', width: 1 },
        endLabel: { show: true, formatter: written(t('{{energy}} J/mm', { energy })), color: ink(), fontSize: 12 },
      };
    });
  const series = machines.flatMap((machine, i) => {
    const data = points.filter(({ burn }) => burn.machine === machine).map(({ point }) => point);
    if (data.length === 0) return [];
    return [{ type: 'scatter', name: machine.name, symbol: symbols[i % symbols.length], data }];
  });
  return {
    animation: false,
    color: ['#0E6570', '#C77700', '#5B3FA0', '#B3261E'],
    textStyle: { fontFamily: getComputedStyle(document.body).fontFamily, color: ink() },
    grid: { left: 52, right: 76, top: 34, bottom: 44 },
    legend: { top: 0, textStyle: { color: ink() }, data: series.map(({ name }) => name) },
    tooltip: { trigger: 'item', formatter: ({ name }: { name: string }) => inSentence(name) },
    xAxis: {
      type: 'value',
      min: 0,
      max: fastest,
      name: t('Speed ÷ passes, mm/s'),
      nameLocation: 'middle',
      nameGap: 26,
      ...axisInk(),
    },
    yAxis: {
      type: 'value',
      min: 0,
      max: strongest,
      name: t('Beam power, W'),
      nameLocation: 'middle',
      nameGap: 36,
      ...axisInk(),
    },
    series: [...lines, ...series],
  };
}

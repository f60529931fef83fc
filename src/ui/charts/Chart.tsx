import type { ApexOptions } from 'apexcharts';
import { useId, useMemo, useSyncExternalStore } from 'react';
import ReactApexChart from 'react-apexcharts';
import { scaleFor } from '../marks/DotStrip';
import { Leaving } from '../kit/Leaving';

/** One line or row of columns; a point without a value leaves a gap. */
export interface Series {
  name: string;
  /** Which of the page's tokens colours it. */
  colour: 'ink' | 'plum' | 'small' | 'large' | 'quiet';
  points: readonly (readonly [x: number, y: number | null])[];
  /** Which of two scales it belongs to. */
  isSecond?: boolean;
  dashed?: boolean;
}

interface ChartProps {
  title: string;
  /** What the chart says, in one sentence. */
  sentence: string;
  kind: 'line' | 'step' | 'columns';
  series: readonly Series[];
  xTitle: string;
  yTitle: string;
  secondTitle?: string;
  /** Upright lines that are named, such as a limit. */
  marks?: readonly { x: number; name: string }[];
  /** Level lines that are named. */
  levels?: readonly { y: number; name: string; isSecond?: boolean }[];
  height?: number;
  digits?: number;
}

const TOKENS = {
  ink: '--ink',
  plum: '--plum',
  small: '--small',
  large: '--large',
  quiet: '--ink-2',
};

const token = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(name).trim();

const darkness = () => window.matchMedia('(prefers-color-scheme: dark)');

const useDark = (): boolean =>
  useSyncExternalStore(
    (onChange) => {
      const query = darkness();
      query.addEventListener('change', onChange);
      return () => query.removeEventListener('change', onChange);
    },
    () => darkness().matches,
    () => false,
  );

/** A chart with its sentence, its figures as a table, and itself as a picture to take away. */
export default function Chart(props: ChartProps) {
  const { title, sentence, kind, series, xTitle, yTitle, height = 240, digits = 1 } = props;
  const id = `chart-${useId().replace(/[^a-z0-9]/gi, '')}`;
  const isDark = useDark();
  const options = useMemo(() => optionsOf(props, id, isDark), [props, id, isDark]);
  const data = series.map((one) => ({
    name: one.name,
    type: kind === 'columns' ? 'column' : 'line',
    data: one.points.map(([x, y]) => ({ x, y })),
  }));
  const xs = [...new Set(series.flatMap((one) => one.points.map(([x]) => x)))].sort(
    (a, b) => a - b,
  );
  const valueAt = series.map((one) => new Map(one.points));
  const heads = [
    xTitle,
    ...series.map((one) => `${one.name}, ${(one.isSecond ? props.secondTitle : yTitle) ?? ''}`),
  ];
  const figures = [heads, ...xs.map((x) => [x, ...valueAt.map((values) => values.get(x) ?? null)])];
  return (
    <figure className="min-w-0 sheet p-3">
      <figcaption>
        <h2 className="font-semibold">{title}</h2>
        <p className="text-xs text-ink-2">{sentence}</p>
      </figcaption>
      <Leaving isPicture name={title} figures={figures}>
        <div role="img" aria-label={`${title}: ${sentence}`}>
          <ReactApexChart options={options} series={data} type="line" height={height} />
        </div>
      </Leaving>
      <details className="min-w-0 text-xs">
        <summary className="action inline-flex">The figures</summary>
        <div
          className="mt-1 max-h-[240px] overflow-auto"
          tabIndex={0}
          aria-label={`${title}: figures`}
        >
          <table>
            <thead>
              <tr>
                {heads.map((head) => (
                  <th key={head} className="th text-right whitespace-normal">
                    {head}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {xs.map((x) => (
                <tr key={x}>
                  <td className="px-2 text-right font-mono">{Number(x.toFixed(3))}</td>
                  {valueAt.map((values, at) => {
                    const y = values.get(x);
                    return (
                      <td
                        key={series[at]?.name}
                        className={`px-2 text-right font-mono ${y == null ? 'unknown' : ''}`}
                      >
                        {y == null ? <span className="sr-only">not known</span> : y.toFixed(digits)}
                      </td>
                    );
                  })}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </details>
    </figure>
  );
}

function optionsOf(props: ChartProps, id: string, isDark: boolean): ApexOptions {
  const { kind, series, xTitle, yTitle, secondTitle, marks = [], levels = [], digits = 1 } = props;
  const ink2 = token('--ink-2');
  const line = token('--line-soft');
  const scale = scaleFor(
    [...series.flatMap((one) => one.points.map(([x]) => x)), ...marks.map((mark) => mark.x)],
    0,
  );
  const colours = series.map((one) => token(TOKENS[one.colour]));
  const font = "'IBM Plex Mono', monospace";
  const labels = { style: { colors: ink2, fontFamily: font, fontSize: '11px' } };
  const said = (value: number | null) => (value === null ? '' : value.toFixed(digits));
  const { label, axis } = labelsOf({ font, series, ink2, labels, said });
  return {
    chart: {
      id,
      animations: { enabled: false },
      toolbar: { show: false },
      zoom: { enabled: false },
      background: 'transparent',
      fontFamily: "'IBM Plex Sans', sans-serif",
      foreColor: ink2,
    },
    theme: { mode: isDark ? 'dark' : 'light' },
    colors: colours,
    stroke:
      kind === 'columns'
        ? { width: 1, colors: colours }
        : {
            curve: kind === 'step' ? 'stepline' : 'straight',
            width: series.map((one) => (one.dashed ? 1.5 : 2)),
            dashArray: series.map((one) => (one.dashed ? 4 : 0)),
          },
    fill: { opacity: kind === 'columns' ? 0.55 : 1, type: 'solid' },
    plotOptions: { bar: { columnWidth: '92%' } },
    markers: { size: 0 },
    dataLabels: { enabled: false },
    legend: { show: series.length > 1, position: 'top', horizontalAlign: 'left' },
    grid: { borderColor: line, padding: { left: 4, right: 8 } },
    tooltip: { theme: isDark ? 'dark' : 'light', x: { formatter: (x) => `${x} ${xTitle}` } },
    annotations: {
      xaxis: marks.map((mark) => ({
        x: mark.x,
        borderColor: token('--ink'),
        label: label(mark.name),
      })),
      yaxis: levels.map((level) => ({
        y: level.y,
        yAxisIndex: level.isSecond ? series.findIndex((one) => one.isSecond) : 0,
        borderColor: token('--ink'),
        label: label(level.name),
      })),
    },
    xaxis: {
      type: 'numeric',
      title: { text: xTitle, style: { color: ink2, fontWeight: 400, fontSize: '11px' } },
      labels: {
        ...labels,
        hideOverlappingLabels: true,
        formatter: (x) => String(Number(Number(x).toFixed(2))),
      },
      axisBorder: { color: line },
      axisTicks: { color: line },
      min: scale.low,
      max: scale.high,
      tickAmount: scale.ticks.length - 1,
      tooltip: { enabled: false },
    },
    yaxis: series.map((one, at) =>
      axis(
        one,
        one.isSecond ? secondTitle : yTitle,
        series.findIndex((other) => other.isSecond === one.isSecond) === at,
      ),
    ),
  };
}

interface LabelsOfGiven {
  font: "'IBM Plex Mono', monospace";
  series: ChartProps['series'];
  ink2: string;
  labels: { style: { colors: string; fontFamily: string; fontSize: string } };
  said: (value: number | null) => string;
}

/** Labels of marks, and the upright axis of a series. */
function labelsOf({ font, series, ink2, labels, said }: LabelsOfGiven) {
  const label = (text: string) => ({
    text,
    orientation: 'horizontal' as const,
    borderWidth: 0,
    style: {
      background: token('--sheet'),
      color: token('--ink'),
      fontFamily: font,
      fontSize: '11px',
    },
  });
  const axis = (one: Series, text: string | undefined, isShown: boolean) => ({
    seriesName: (series.find((other) => other.isSecond === one.isSecond) ?? one).name,
    show: isShown,
    opposite: one.isSecond === true,
    min: 0,
    title: { text: text ?? '', style: { color: ink2, fontWeight: 400, fontSize: '11px' } },
    labels: { ...labels, formatter: said },
  });
  return { label, axis };
}

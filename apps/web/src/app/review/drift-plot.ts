import { ChangeDetectionStrategy, Component, computed, type ElementRef, input, output, viewChild } from '@angular/core';
import { outliersOf } from '@zinc/core';
import { keepChart } from '../shared/chart';
import { thumbUrl } from '../shared/thumb';

export interface Dot {
  id: string;
  label: string;
  drift: number;
  pictureSha: string;
  verdict: string | null;
}

const COLOURS: Record<string, string> = {
  keep: '#2a6450',
  keepOnceMended: '#2a6450',
  hold: '#8f9193',
  drop: '#b83016',
  none: '#161718',
};
const SHAPES: Record<string, string> = {
  keep: 'circle',
  keepOnceMended: 'emptyCircle',
  hold: 'rect',
  drop: 'diamond',
  none: 'circle',
};

/** So many of those that stand out are named on the plot. */
const MOST_NAMED = 12;

/** What the chart hands back of a dot. */
interface Spot {
  id: string;
  name: string;
  sha: string;
  value: number[];
}

/** The picture of a dot with its figure, built of nodes: a label is never read as markup. */
function pictureOf({ name, sha, value }: Spot): HTMLElement {
  const box = document.createElement('div');
  const picture = document.createElement('img');
  Object.assign(picture, { src: thumbUrl(sha, 160), width: 110, height: 110, alt: '' });
  picture.style.objectFit = 'contain';
  const line = document.createElement('div');
  line.textContent = `${name}: ${value[0].toFixed(2)}`;
  box.append(picture, line);
  return box;
}

/** A dot a proof along its drift from the look, with the allowed drift marked; a brush over it filters the set. */
@Component({
  selector: 'zs-drift-plot',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<div #box class="box" role="img" [attr.aria-label]="spoken()"></div>`,
  styles: `
    .box {
      height: 108px;
      background: var(--white);
      border: 1px solid var(--hair);
    }
  `,
})
export class DriftPlot {
  readonly dots = input.required<readonly Dot[]>();
  readonly allowed = input.required<number>();
  readonly inHand = input<string | null>(null);
  /** The proof whose dot was chosen. */
  readonly chosen = output<string>();
  /** The range that was brushed; null for all. */
  readonly brushed = output<[number, number] | null>();
  private readonly box = viewChild.required<ElementRef<HTMLElement>>('box');
  readonly spoken = computed(() => {
    const off = this.dots().filter(d => d.drift > this.allowed()).length;
    const out = this.outliers().map(i => this.dots()[i].label);
    const said = out.length === 0 ? 'None stands out.' : `${out.length} stand out from the rest: ${out.join(', ')}.`;
    return `Drift of ${this.dots().length} proofs; ${off} beyond the allowed ${this.allowed().toFixed(2)}. ${said}`;
  });
  /** Places in `dots` of those that stand out from the rest, the farthest first. */
  private readonly outliers = computed(() => outliersOf(this.dots().map(d => d.drift)));

  private readonly option = computed(() => {
    const allowed = this.allowed();
    const out = new Set(this.outliers());
    const named = new Set(this.outliers().slice(0, MOST_NAMED));
    const most = Math.max(allowed * 1.5, ...this.dots().map(d => d.drift + 0.05));
    return {
      animation: false,
      grid: { left: 14, right: 14, top: 18, bottom: 22 },
      tooltip: {
        formatter: (p: { data: Spot }) => pictureOf(p.data),
        confine: true,
        padding: 6,
        transitionDuration: 0,
        borderRadius: 0,
        textStyle: { fontFamily: 'Archivo Variable', color: '#161718' },
      },
      brush: {
        xAxisIndex: 0,
        brushStyle: { color: 'rgba(22,23,24,.08)', borderColor: '#161718', borderWidth: 1 },
        toolbox: [],
        outOfBrush: { colorAlpha: 0.25 },
        throttleType: 'debounce',
        throttleDelay: 60,
      },
      xAxis: {
        min: 0,
        max: Math.ceil(most * 10) / 10,
        name: 'drift',
        nameLocation: 'start',
        nameTextStyle: { color: 'transparent', fontSize: 1 },
        axisLine: { lineStyle: { color: '#8f9193' } },
        splitLine: { lineStyle: { color: '#ececec' } },
        axisLabel: {
          color: '#4a4c4e',
          fontFamily: 'Archivo Variable',
          formatter: (v: number) => (v === 0 ? 'on the look' : v.toFixed(1)),
        },
      },
      yAxis: { min: 0, max: 1, show: false },
      series: [
        {
          type: 'scatter' as const,
          // Names that would lie over others are left to the tip.
          labelLayout: { hideOverlap: true },
          label: {
            color: '#161718',
            fontFamily: 'Archivo Variable',
            fontSize: 11,
            // Names stay readable over dots and lines.
            textBorderColor: '#fff',
            textBorderWidth: 3,
          },
          data: this.dots().map((d, i) => ({
            name: d.label,
            id: d.id,
            sha: d.pictureSha,
            value: [d.drift, 0.12 + 0.76 * ((i * 0.618034) % 1)],
            symbol: SHAPES[d.verdict ?? 'none'],
            symbolSize: d.id === this.inHand() ? 15 : 8,
            label: { show: named.has(i), position: i % 2 === 0 ? ('left' as const) : ('right' as const), formatter: d.label },
            itemStyle: {
              color: COLOURS[d.verdict ?? 'none'],
              borderColor: d.id === this.inHand() || out.has(i) ? '#b83016' : COLOURS[d.verdict ?? 'none'],
              borderWidth: d.id === this.inHand() ? 3 : out.has(i) ? 2 : 1,
            },
          })),
          markLine: {
            silent: true,
            symbol: 'none',
            animation: false,
            lineStyle: { color: '#b83016', width: 2, type: 'solid' as const },
            label: {
              formatter: `allowed ${allowed.toFixed(2)}`,
              position: 'end' as const,
              distance: 3,
              color: '#b83016',
              fontFamily: 'Archivo Variable',
              fontWeight: 600,
            },
            data: [{ xAxis: allowed }],
          },
        },
      ],
    };
  });

  constructor() {
    keepChart(this.box, this.option, chart => {
      chart.dispatchAction({
        type: 'takeGlobalCursor',
        key: 'brush',
        brushOption: { brushType: 'lineX', brushMode: 'single' },
      });
      chart.on('click', event => this.chosen.emit((event.data as unknown as Spot).id));
      chart.on('brushEnd', event => {
        const range = (event as { areas: { coordRange: [number, number] }[] }).areas[0]?.coordRange;
        this.brushed.emit(range && range[1] - range[0] > 0.004 ? range : null);
      });
    });
  }
}

import { ChangeDetectionStrategy, Component, computed, type ElementRef, input, viewChild } from '@angular/core';
import { keepChart } from '../shared/chart';

/** What a strip measured at one value: means over its images; null while there are none. */
export interface StripPoint {
  value: string;
  drift: number | null;
  likeness: number | null;
}

const last = (figures: (number | null)[]): string => figures.at(-1)?.toFixed(2) ?? '';

/** Drift from the look and likeness to the subject over the values of a test strip. */
@Component({
  selector: 'zs-strip-curve',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<div #box class="box" role="img" [attr.aria-label]="spoken()"></div>`,
  styles: `
    .box {
      height: 150px;
      background: var(--white);
      border: 1px solid var(--hair);
    }
  `,
})
export class StripCurve {
  readonly what = input.required<string>();
  readonly points = input.required<readonly StripPoint[]>();
  /** Places of the first and the last value that were found good. */
  readonly good = input<[number, number] | null>(null);
  private readonly box = viewChild.required<ElementRef<HTMLElement>>('box');
  readonly spoken = computed(
    () =>
      `${this.what()}: ${this.points()
        .map(
          p => `${p.value}, drift ${p.drift?.toFixed(2) ?? 'not measured'}, likeness ${p.likeness?.toFixed(2) ?? 'not measured'}`,
        )
        .join('; ')}.`,
  );

  private readonly option = computed(() => {
    const points = this.points();
    const good = this.good();
    const font = { fontFamily: 'Archivo Variable', color: '#4a4c4e' };
    const end = points.at(-1);
    const upper = (end?.likeness ?? 0) > (end?.drift ?? 0) ? 'likeness' : 'drift';
    const line = (
      name: string,
      colour: string,
      symbol: string,
      stroke: 'solid' | 'dashed',
      of: (p: StripPoint) => number | null,
    ) => ({
      name,
      type: 'line' as const,
      data: points.map(of),
      symbol,
      symbolSize: 9,
      lineStyle: { color: colour, width: 2, type: stroke },
      itemStyle: { color: colour },
      endLabel: {
        show: true,
        offset: [0, name === upper ? -7 : 7],
        formatter: `${name} ${last(points.map(of))}`,
        ...font,
        color: colour,
        fontWeight: 650,
      },
    });
    return {
      animation: false,
      grid: { left: 44, right: 104, top: 14, bottom: 26 },
      tooltip: { trigger: 'axis' as const, transitionDuration: 0, borderRadius: 0, textStyle: { ...font, color: '#161718' } },
      xAxis: {
        type: 'category' as const,
        data: points.map(p => p.value),
        axisLabel: font,
        axisLine: { lineStyle: { color: '#8f9193' } },
      },
      // One scale for both: two would put figures beside each other that cannot be read against each other.
      yAxis: {
        min: 0,
        axisLabel: { ...font, formatter: (v: number) => v.toFixed(1) },
        splitLine: { lineStyle: { color: '#ececec' } },
      },
      series: [
        {
          ...line('drift', '#b83016', 'diamond', 'solid', p => p.drift),
          markArea: {
            silent: true,
            itemStyle: { color: 'rgba(42,100,80,.13)' },
            data: good ? [[{ xAxis: points[good[0]].value }, { xAxis: points[good[1]].value }]] : [],
          },
        },
        line('likeness', '#2a6450', 'circle', 'dashed', p => p.likeness),
      ],
    };
  });

  constructor() {
    keepChart(this.box, this.option);
  }
}

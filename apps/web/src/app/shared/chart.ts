import { DestroyRef, effect, type ElementRef, inject, type Signal } from '@angular/core';
import type { EChartsType } from 'echarts/core';

/**
 * Keeps a chart in a box: begun with the first option, given every later one, fitted to the box, gone with its component. Call it in a
 * constructor; `begun` is told the chart once, to hear what a hand does in it.
 */
export function keepChart(
  box: Signal<ElementRef<HTMLElement>>,
  option: Signal<Parameters<EChartsType['setOption']>[0]>,
  begun: (chart: EChartsType) => void = () => undefined,
): void {
  let chart: EChartsType | null = null;
  let gone = false;
  const observer = new ResizeObserver(() => chart?.resize());
  const start = async (): Promise<void> => {
    // The chart library is fetched with the first chart.
    const { init } = await import('./plot-kit');
    if (gone || chart) return;
    const element = box().nativeElement;
    chart = init(element, null, { renderer: 'svg' });
    chart.setOption(option());
    observer.observe(element);
    begun(chart);
  };
  effect(() => {
    const now = option();
    if (chart) chart.setOption(now);
    else void start();
  });
  inject(DestroyRef).onDestroy(() => {
    gone = true;
    observer.disconnect();
    chart?.dispose();
  });
}

/** The parts of the chart library that the plot uses; loaded only with the first plot. */
import { LineChart, ScatterChart } from 'echarts/charts';
import { BrushComponent, GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { init, use } from 'echarts/core';
import { LabelLayout } from 'echarts/features';
import { SVGRenderer } from 'echarts/renderers';

use([
  ScatterChart,
  LineChart,
  GridComponent,
  TooltipComponent,
  MarkLineComponent,
  MarkAreaComponent,
  BrushComponent,
  LabelLayout,
  SVGRenderer,
]);

export { init };

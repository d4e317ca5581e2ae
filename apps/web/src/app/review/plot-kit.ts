/** The parts of the chart library that the plot uses; loaded only with the first plot. */
import { ScatterChart } from 'echarts/charts';
import { BrushComponent, GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { init, use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

use([ScatterChart, GridComponent, TooltipComponent, MarkLineComponent, BrushComponent, SVGRenderer]);

export { init };

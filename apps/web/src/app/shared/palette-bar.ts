import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { hexOfLab, type PaletteColour } from '@zinc/core';

/** Relative luminance below which white reads better than black on a colour: there both contrast alike (WCAG 2.2). */
const WHITE_FROM = 0.179;

function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5]
    .map(i => parseInt(hex.slice(i, i + 2), 16) / 255)
    .map(v => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4));
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/** A palette as a strip; each colour as wide as the area it covers. */
@Component({
  selector: 'zs-palette-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="bar" role="img" [attr.aria-label]="spoken()">
      @for (c of colours(); track $index) {
        <span [style.flex-grow]="c.share" [style.background]="c.hex" [title]="c.hex + ', ' + c.percent + ' %'">
          @if (figures() && c.percent >= 7) {
            <i [class.onDark]="c.dark">{{ c.percent }}</i>
          }
        </span>
      }
    </div>
  `,
  styles: `
    .bar {
      display: flex;
      height: 100%;
      min-height: 8px;
    }
    span {
      flex-basis: 2px;
      min-width: 0;
      position: relative;
    }
    i {
      position: absolute;
      left: 4px;
      bottom: 2px;
      font: 600 11px/1.2 'Archivo Variable';
      color: #000;
    }
    i.onDark {
      color: #fff;
    }
  `,
})
export class PaletteBar {
  readonly palette = input.required<readonly PaletteColour[]>();
  readonly figures = input(false);
  readonly colours = computed(() =>
    this.palette().map(c => {
      const hex = hexOfLab(c);
      return { share: c.share, percent: Math.round(c.share * 100), hex, dark: luminance(hex) < WHITE_FROM };
    }),
  );
  readonly spoken = computed(
    () =>
      `Palette: ${this.colours()
        .map(c => `${c.hex} ${c.percent} %`)
        .join(', ')}`,
  );
}

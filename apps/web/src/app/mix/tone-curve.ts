import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

/** The tones of a look from dark to light as a curve; a straight line would be an even spread. */
@Component({
  selector: 'zs-tone-curve',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 100 60" preserveAspectRatio="none" role="img" aria-label="Tone from dark to light">
      <rect
        x="0"
        y="0"
        width="100"
        height="60"
        fill="#fff"
        stroke="#c1c3c5"
        stroke-width="1"
        vector-effect="non-scaling-stroke"
      />
      <path d="M0 60 100 0" stroke="#8f9193" stroke-width="1" stroke-dasharray="4 4" vector-effect="non-scaling-stroke" />
      <path [attr.d]="path()" fill="none" stroke="#161718" stroke-width="2" vector-effect="non-scaling-stroke" />
    </svg>
    <p class="hint">Tone, darkest to lightest area. Dashed: an even spread.</p>
  `,
  styles: `
    svg {
      display: block;
      width: 100%;
      height: 84px;
    }
  `,
})
export class ToneCurve {
  readonly tone = input.required<readonly number[]>();
  readonly path = computed(() =>
    this.tone()
      .map((v, i, all) => `${i ? 'L' : 'M'}${((100 * i) / (all.length - 1)).toFixed(1)} ${(60 - 60 * v).toFixed(1)}`)
      .join(' '),
  );
}

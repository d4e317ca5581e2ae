import { TestBed } from '@angular/core/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { FacetGauges } from './facet-gauges';

describe('facet gauges', () => {
  it('show each facet, mark what is beyond the allowed drift, and what is left free', async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(FacetGauges);
    fixture.componentRef.setInput('drift', { colour: 0.12, light: 0.66, line: 0.3, texture: 0.9, total: 0.5 });
    fixture.componentRef.setInput('allowed', 0.4);
    fixture.componentRef.setInput('facets', ['colour', 'light', 'line']);
    await fixture.whenStable();
    const text = [...(fixture.nativeElement as HTMLElement).querySelectorAll('b')].map(b => [
      b.textContent,
      b.classList.contains('wrong'),
    ]);
    expect(text).toEqual([
      ['0.12', false],
      ['0.66', true],
      ['0.30', false],
      ['free', false],
    ]);
  });
});

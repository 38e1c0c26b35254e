import { TestBed } from '@angular/core/testing';
import { ArcStrip, type StripModel } from './arc-strip';

const MODEL: StripModel = {
  side: 'right',
  label: (value) => (value < 0 ? `lacks ${-value}` : String(value)),
  range: { from: 0, to: 60 },
  active: 20,
  passive: 31,
  expected: { low: 36, high: 53 },
  gapTo: 36,
  lastVisit: 27,
  pain: 3,
  value: '31',
  text: 'right: passive 31°',
};

describe('ArcStrip', () => {
  const draw = (over: Partial<StripModel> = {}): HTMLElement => {
    const fixture = TestBed.createComponent(ArcStrip);
    fixture.componentRef.setInput('model', { ...MODEL, ...over });
    fixture.detectChanges();
    return fixture.nativeElement as HTMLElement;
  };
  const needle = (element: HTMLElement) => Number(element.querySelector('.needle')!.getAttribute('x1'));
  const bar = (element: HTMLElement) => Number(element.querySelector('.active')!.getAttribute('width'));

  it('mirrors the left side', () => {
    expect(needle(draw()) + needle(draw({ side: 'left' }))).toBeCloseTo(240, 6);
    expect(bar(draw())).toBeCloseTo(bar(draw({ side: 'left' })), 6);
  });

  it('draws gap, last visit and pain only where there are some', () => {
    const full = draw();
    const bare = draw({ gapTo: null, lastVisit: null, pain: 0 });
    for (const mark of ['.gap', '.last', '.pain']) {
      expect(full.querySelector(mark)).withContext(mark).not.toBeNull();
      expect(bare.querySelector(mark)).withContext(mark).toBeNull();
    }
  });

  it('says a lack in words on its scale', () => {
    const text = draw({ range: { from: -10, to: 30 }, passive: -4 }).textContent;
    expect(text).toContain('lacks 10');
    expect(text).not.toMatch(/[-−]\d/);
  });

  it('is a picture with its meaning in words', () => {
    expect(draw().querySelector('svg')!.getAttribute('aria-label')).toBe('right: passive 31°');
  });
});

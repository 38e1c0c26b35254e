import { TestBed } from '@angular/core/testing';
import { Dial, type DialModel } from './dial';

const MODEL: DialModel = {
  facing: { zeroAt: 0, sense: -1 },
  scale: { on: 70, back: 70 },
  ends: { on: 'internal', back: 'external' },
  needle: 31,
  error: 5.9,
  active: 24,
  passive: 31,
  expected: { low: 36, high: 53 },
  gap: { to: 36, words: '5° short' },
  otherSide: { at: 43, words: 'right 43' },
  lastVisit: { at: 27, words: '26 Oct: 27' },
  stop: null,
  text: 'left hip internal rotation, passive; needle at 31°.',
};

describe('Dial', () => {
  const draw = (over: Partial<DialModel> = {}): SVGSVGElement => {
    const fixture = TestBed.createComponent(Dial);
    fixture.componentRef.setInput('model', { ...MODEL, ...over });
    fixture.detectChanges();
    return (fixture.nativeElement as HTMLElement).querySelector('svg')!;
  };
  const boxes = (svg: SVGSVGElement) => [...svg.querySelectorAll<SVGTextElement>('text.label')].map((t) => t.getBBox());

  it('is one picture with its meaning in words', () => {
    const svg = draw();
    expect(svg.getAttribute('role')).toBe('img');
    expect(svg.getAttribute('aria-label')).toBe(MODEL.text);
  });

  it('draws a mark of its own shape for everything it knows', () => {
    const svg = draw();
    for (const mark of [
      'line.needle',
      'path.soft-edge',
      'path.expected',
      'path.gap',
      'polygon.other',
      'circle.last',
      'path.active',
      'path.passive',
    ]) {
      expect(svg.querySelector(mark)).withContext(mark).not.toBeNull();
    }
    expect(svg.querySelectorAll('.tick').length).toBe(141);
  });

  it('draws nothing it does not know', () => {
    const svg = draw({ needle: null, expected: null, gap: null, otherSide: null, lastVisit: null, active: null, passive: null });
    for (const mark of ['line.needle', 'path.expected', 'path.gap', 'polygon.other', 'circle.last', 'path.active']) {
      expect(svg.querySelector(mark)).withContext(mark).toBeNull();
    }
  });

  it('points the needle to the left for a left internal rotation seen from the feet', () => {
    const needle = draw().querySelector('line.needle')!;
    expect(Number(needle.getAttribute('x2'))).toBeLessThan(0);
    expect(Number(needle.getAttribute('y2'))).toBeLessThan(0);
  });

  it('widens its softness with the error', () => {
    const width = (error: number) => draw({ error }).querySelector<SVGPathElement>('path.soft-edge')!.getBBox().width;
    expect(width(12)).toBeGreaterThan(width(4));
  });

  it('grows its scale when a reading lies past it', () => {
    expect(draw({ needle: 88 }).querySelectorAll('.tick').length).toBe(161);
  });

  it('keeps labels apart where marks crowd', () => {
    const crowded = boxes(
      draw({ otherSide: { at: 31, words: 'right 31' }, lastVisit: { at: 32, words: '26 Oct: 32' }, gap: { to: 34, words: '3° short' } }),
    );
    expect(crowded.length).toBe(3);
    for (const [i, a] of crowded.entries()) {
      for (const b of crowded.slice(i + 1)) {
        const overlap = a.x < b.x + b.width && b.x < a.x + a.width && a.y + 1 < b.y + b.height && b.y + 1 < a.y + a.height;
        expect(overlap).toBeFalse();
      }
    }
  });
});

import { TestBed } from '@angular/core/testing';
import { planView, planWords, STATIONS } from '@dial-gauge/core';
import { TableView } from './table-view';

describe('table view', () => {
  it('has their left on the right hand of whoever stands at the feet, and changes over when they turn prone', () => {
    expect(planView('supine', 'foot').leftIsLeft).toBeFalse();
    expect(planView('prone', 'foot').leftIsLeft).toBeTrue();
    expect(planView('supine', 'head').leftIsLeft).toBeTrue();
    expect(planView('prone', 'head').leftIsLeft).toBeFalse();
    expect(planView('standing', 'foot').leftIsLeft).toBeFalse();
    expect(planView('standing', 'head').from).toBe('seen from behind');
    expect(planView('standing', 'head').leftIsLeft).toBeTrue();
  });

  it('says which side is up', () => {
    expect(planView('sidelying-on-left', 'foot').words).toBe('their right side is up, their left on the table');
    expect(planView('sidelying-on-left', 'foot').face).toBe('right');
    expect(planView('sidelying-on-right', 'foot').face).toBe('left');
  });

  it('is told in words', () => {
    expect(planWords('prone', 'foot', 'left')).toBe(
      'Patient prone, seen from the foot of the table: their left is on your left. The left side is in hand.',
    );
  });

  it('draws the side in hand where its name stands, however they lie and wherever the examiner is', async () => {
    const fixture = TestBed.createComponent(TableView);
    const page = fixture.nativeElement as HTMLElement;
    document.body.append(page);
    for (const station of STATIONS.filter((s) => !s.startsWith('sidelying'))) {
      for (const standpoint of ['foot', 'head'] as const) {
        for (const side of ['left', 'right'] as const) {
          fixture.componentRef.setInput('station', station);
          fixture.componentRef.setInput('standpoint', standpoint);
          fixture.componentRef.setInput('side', side);
          await fixture.whenStable();
          const middle = (selector: string) => {
            const box = page.querySelector(selector)!.getBoundingClientRect();
            return box.x + box.width / 2;
          };
          const centre = page.querySelector('svg')!.getBoundingClientRect();
          const half = (x: number) => Math.sign(x - (centre.x + centre.width / 2));
          expect(page.querySelector('text.hand')!.textContent).toBe(side);
          expect(half(middle('.leg.hand')))
            .withContext(`${station} ${standpoint} ${side}`)
            .toBe(half(middle('text.hand')));
        }
      }
    }
    page.remove();
  });
});

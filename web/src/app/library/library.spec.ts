import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter } from '@angular/router';
import { DEFAULT_THRESHOLDS, protocolOfId, PROTOCOLS, type NormSet } from '@dial-gauge/core';
import { ClinicNorms } from '../data/clinic-norms';
import { protocolAt, protocolPath } from './address';
import { LibraryPage } from './library';
import { ProtocolPage } from './protocol';
import { ProtocolCard } from './protocol-card';
import { searchProtocols } from './search';

const OWN: NormSet = {
  id: 'own',
  title: 'Own set',
  short: 'Own set',
  year: null,
  where: 'own records',
  source: { cite: 'measured by ourselves', fromMemory: false },
  entries: [
    {
      motion: 'hip.flexion',
      mode: 'any',
      position: 'any',
      sex: 'any',
      ages: null,
      value: { kind: 'point', expected: 117 },
      confidence: 'high',
    },
  ],
};
const NORMS_VIEW = {
  normSets: ['own'],
  thresholds: DEFAULT_THRESHOLDS,
  sets: [],
  ownSets: [OWN],
  ownErrors: [],
  valueChecks: [],
  ranking: 'largest-first',
};

function setUp(): HttpTestingController {
  TestBed.configureTestingModule({
    imports: [MatIconTestingModule],
    providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([])],
  });
  return TestBed.inject(HttpTestingController);
}

describe('searching the library', () => {
  const ids = (words: string) => searchProtocols(words).map((p) => p.id);

  it('finds every hip rotation, and nothing of the neck', () => {
    const found = ids('hip rotation');
    expect(found.slice(0, 7).every((id) => /^hip\.(internal|external)Rotation/.test(id))).toBeTrue();
    expect(found.filter((id) => /^hip\.(internal|external)Rotation/.test(id)).length).toBe(7);
  });

  it('takes beginnings of words and forgives a slip of the finger', () => {
    expect(ids('supin')).toContain('forearm.supination/sitting');
    expect(ids('dorsiflexoin')).toContain('ankle.dorsiflexion/sitting');
    expect(ids('zzzz')).toEqual([]);
    expect(searchProtocols(' ').length).toBe(PROTOCOLS.length);
  });

  it('gives every protocol an address of its own, without a dot', () => {
    for (const p of PROTOCOLS) {
      const [, region, motion, way] = protocolPath(p);
      expect(protocolPath(p).join('/')).not.toContain('.');
      expect(protocolAt(region!, motion!, way!)).toBe(p);
    }
  });
});

describe('LibraryPage', () => {
  it('groups by motion, counts by part of the body, and teaches when nothing is found', () => {
    setUp();
    const fixture = TestBed.createComponent(LibraryPage);
    fixture.detectChanges();
    const element = fixture.nativeElement as HTMLElement;
    const type = (words: string) => {
      const field = element.querySelector<HTMLInputElement>('input[type=search]')!;
      field.value = words;
      field.dispatchEvent(new Event('input'));
      fixture.detectChanges();
    };
    const links = () => [...element.querySelectorAll<HTMLAnchorElement>('.found a')].map((a) => a.getAttribute('href'));
    expect(links().length).toBe(PROTOCOLS.length);
    type('hip rotation');
    expect(element.querySelector('.find [role=status]')!.textContent).toContain(`of ${PROTOCOLS.length}`);
    expect(links()[0]).toMatch(/^\/library\/hip\/(internal|external)Rotation\//);
    const shoulder = [...element.querySelectorAll<HTMLButtonElement>('nav[aria-label="Parts of the body"] button')].find((b) =>
      b.textContent!.includes('Elbow'),
    )!;
    expect(shoulder.disabled).toBeTrue();
    type('zzzz');
    expect(element.querySelector('.empty')!.textContent).toContain('Nothing holds all of these words');
  });
});

describe('ProtocolCard', () => {
  const show = (id: string, age = 40): HTMLElement => {
    const fixture = TestBed.createComponent(ProtocolCard);
    fixture.componentRef.setInput('protocol', protocolOfId(id)!);
    fixture.componentRef.setInput('person', { sex: 'female', age });
    fixture.detectChanges();
    return fixture.nativeElement as HTMLElement;
  };
  const tables = (element: HTMLElement) => [...element.querySelectorAll('table')].map((t) => t.textContent!.replace(/\s+/g, ' '));

  it('shows technique, norms of all sets with how sure they are, tasks and error', () => {
    setUp();
    const element = show('hip.internalRotation/prone');
    const text = element.textContent!.replace(/\s+/g, ' ');
    for (const words of ['thigh drifts', 'not by the foot', 'never compare']) expect(text).toContain(words);
    const [norms, errors] = tables(element);
    expect(norms).toContain('Roaas & Andersson 1982');
    expect(norms).toContain('32.6° (SD 8.2)');
    expect(norms).toContain('medium-high');
    expect(norms).toContain('norm is for the other mode; shown, not counted');
    // Said once for the page, and not with every value.
    expect(norms).not.toContain('from memory');
    expect(text).toContain('Values are from memory until they are looked up');
    expect(errors).toContain('goniometer3°; a change counts from 8.3°');
    expect(errors).toContain('default, not measured for this motion');
    expect(errors).toContain('Pua YH');
  });

  it('says what tasks ask, and shows figures of special samples without using them', () => {
    setUp();
    const text = show('knee.flexion/supine').textContent!.replace(/\s+/g, ' ');
    expect(text).toMatch(/83°\s*stairs up/);
    expect(text).toContain('Shown, not used: knees after replacement: SEM 4.1°');
  });

  it('marks the clinic’s own set, and says when it is silent', () => {
    const http = setUp();
    TestBed.inject(ClinicNorms).load().subscribe();
    http.expectOne('/api/norms').flush(NORMS_VIEW);
    expect(tables(show('hip.flexion/supine'))[0]).toMatch(/Own set\s*in use\s*117°/);
    expect(show('knee.flexion/supine').textContent).toContain('it is not judged');
    expect(show('girth.calf/supine').textContent).toContain('There is no norm for this');
  });

  it('claims no set in use before the server has said which', () => {
    setUp();
    const element = show('hip.flexion/supine');
    expect(element.querySelector('tr.chosen')).toBeNull();
    expect(element.textContent).not.toContain('it is not judged');
  });

  it('changes band with the age', () => {
    setUp();
    expect(tables(show('cervical.extension/sitting', 25))[0]).toContain('85.6° (SD 10.6)');
    expect(tables(show('cervical.extension/sitting', 65))[0]).toContain('65.2° (SD 13.3)');
  });
});

describe('ProtocolPage', () => {
  const open = (way: string) => {
    const http = setUp();
    const fixture = TestBed.createComponent(ProtocolPage);
    fixture.componentRef.setInput('region', 'hip');
    fixture.componentRef.setInput('motionName', 'internalRotation');
    fixture.componentRef.setInput('way', way);
    fixture.detectChanges();
    http.match('/api/norms').forEach((request) => request.flush(NORMS_VIEW));
    fixture.detectChanges();
    return fixture;
  };

  it('links the other ways of measuring the same motion', () => {
    const element = open('prone').nativeElement as HTMLElement;
    expect([...element.querySelectorAll('.other')].map((a) => a.getAttribute('href'))).toEqual([
      '/library/hip/internalRotation/sitting',
      '/library/hip/internalRotation/supine-hip-90',
    ]);
  });

  it('keeps the norms while an age is half typed, and says what is allowed', async () => {
    const fixture = open('prone');
    await fixture.whenStable();
    const element = fixture.nativeElement as HTMLElement;
    const field = element.querySelector<HTMLInputElement>('input[type=number]')!;
    field.value = '500';
    field.dispatchEvent(new Event('input'));
    fixture.detectChanges();
    expect(element.querySelector('#age-problem')!.textContent).toContain('Age: whole years, 0 to 120.');
    expect(element.querySelector('table')!.textContent).toContain('Roaas');
  });

  it('answers an address that is not there', () => {
    expect((open('upside-down').nativeElement as HTMLElement).textContent).toContain('no way of measuring at this address');
  });
});

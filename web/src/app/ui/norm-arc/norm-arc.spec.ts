import { TestBed } from '@angular/core/testing';
import { chooseNorm, motion, NORM_SETS, protocolOfId, PROTOCOLS, TASK_NEEDS, type Protocol } from '@dial-gauge/core';
import { scaleOf, valueWords, type NormLane } from './lanes';
import { NormArc } from './norm-arc';

const lanesOf = ({ motion: id, position, variant }: Protocol): NormLane[] =>
  NORM_SETS.flatMap((set) => {
    const choice = chooseNorm(set, { motion: id, mode: 'passive', position, variant, sex: 'female', age: 40 });
    return choice ? [{ set, choice }] : [];
  }).map((lane, i) => ({ ...lane, number: i + 1, chosen: lane.set.id === 'aaos-1965' }));

describe('NormArc', () => {
  const draw = (protocol: Protocol): HTMLElement => {
    const fixture = TestBed.createComponent(NormArc);
    fixture.componentRef.setInput('motion', motion(protocol.motion));
    fixture.componentRef.setInput('dial', protocol.dial);
    fixture.componentRef.setInput('lanes', lanesOf(protocol));
    fixture.componentRef.setInput(
      'needs',
      TASK_NEEDS.filter((need) => need.motion === protocol.motion),
    );
    fixture.detectChanges();
    return fixture.nativeElement as HTMLElement;
  };

  it('gives every set a lane, the one in use its own, and one without a vote a broken line', () => {
    const element = draw(protocolOfId('hip.internalRotation/prone')!);
    expect(element.querySelectorAll('.number').length).toBe(8);
    expect(element.querySelectorAll('g.chosen').length).toBe(1);
    expect(element.querySelectorAll('g.silent').length).toBe(4);
    expect(element.querySelector('svg')!.getAttribute('aria-label')).toContain('Roaas & Andersson 1982 32.6° (SD 8.2)');
  });

  it('lays a distance on a straight scale', () => {
    const element = draw(protocolOfId('distance.kneeToWall/standing')!);
    expect(element.querySelector('.pivot')).toBeNull();
    expect(element.querySelector('.rim')!.getAttribute('d')).not.toContain('A');
  });

  it('draws the norms of every protocol without a number gone wrong, and never a bare sign', () => {
    for (const protocol of PROTOCOLS) {
      const element = draw(protocol);
      expect(element.innerHTML)
        .withContext(protocol.id)
        .not.toMatch(/NaN|Infinity|undefined/);
      expect([...element.querySelectorAll('text.scale')].map((t) => t.textContent).join(' '))
        .withContext(protocol.id)
        .not.toMatch(/[-−]\d/);
    }
  });

  it('writes values as their source knows them', () => {
    const words = (id: string, set: string) => {
      const protocol = protocolOfId(id)!;
      return valueWords(motion(protocol.motion), lanesOf(protocol).find((lane) => lane.set.id === set)!.choice);
    };
    expect(words('hip.flexion/supine', 'common-practice')).toBe('110–135°');
    expect(words('hip.flexion/supine', 'aaos-1965')).toBe('120°');
    expect(words('hip.flexion/supine', 'soucie-2011')).toBe('133.8° (mean; 132.5 to 135.1)');
    expect(words('distance.handsBehindBack/standing', 'rikli-jones-1999')).toBe('a gap of 7.6 cm to fingers overlap by 3.8 cm');
    expect(scaleOf(motion('hip.extension'), [], [])).toEqual({ from: 0, to: 20 });
  });
});

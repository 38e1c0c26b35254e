import { TestBed } from '@angular/core/testing';
import { protocolOfId, PROTOCOLS, type Protocol } from '@dial-gauge/core';
import { ProtocolFigure } from './figure';

describe('ProtocolFigure', () => {
  const draw = (protocol: Protocol): HTMLElement => {
    const fixture = TestBed.createComponent(ProtocolFigure);
    fixture.componentRef.setInput('protocol', protocol);
    fixture.detectChanges();
    return fixture.nativeElement as HTMLElement;
  };
  const at = (id: string) => draw(protocolOfId(id)!);

  it('draws axis, still arm, zero and moving arm of a turning joint', () => {
    const element = at('hip.internalRotation/prone');
    for (const part of ['.axis', '.still', '.zero', '.moving', '.way', '.limb.moves'])
      expect(element.querySelector(part)).withContext(part).not.toBeNull();
    expect(element.querySelector('svg')!.getAttribute('aria-label')).toBe(
      'Hip internal rotation, prone, seen from the feet: axis, still arm and moving arm from zero to an end position.',
    );
  });

  it('draws tape, ring and push where nothing turns', () => {
    expect(at('distance.kneeToWall/standing').querySelectorAll('.axis').length).toBe(2);
    expect(at('girth.calf/supine').querySelector('.ring')).not.toBeNull();
    expect(at('strength.kneeExtension/sitting').querySelector('.tip')!.getAttribute('d')).toMatch(/^M[\d.]/);
    expect(at('lumbar.flexion/standing').querySelectorAll('.site').length).toBe(2);
  });

  it('has a picture of every protocol without a number gone wrong', () => {
    for (const protocol of PROTOCOLS)
      expect(draw(protocol).innerHTML)
        .withContext(protocol.id)
        .not.toMatch(/NaN|undefined|Infinity/);
  });
});

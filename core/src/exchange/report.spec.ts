import { assess } from '../finding/index.js';
import { evaluationReport } from './report.js';

describe('the terminal’s report', () => {
  it('carries unit, protocol and finger, and nothing finer than an instrument reads', () => {
    const report = evaluationReport(
      assess({
        person: { birthDate: '2003-05-02', sex: 'female' },
        assessedOn: '2026-11-20',
        measurements: [
          {
            motion: 'hip.internalRotation',
            side: 'left',
            mode: 'active',
            position: 'prone',
            instrument: 'goniometer',
            trials: [{ end: 23 }, { end: 24 }, { end: 24 }],
          },
          {
            motion: 'distance.kneeToWall',
            side: 'left',
            mode: 'active',
            position: 'standing',
            instrument: 'tape',
            trials: [{ value: 3, unit: 'in' }],
          },
          {
            motion: 'fingerPip.flexion',
            digit: 2,
            side: 'left',
            mode: 'active',
            position: 'sitting',
            instrument: 'goniometer',
            trials: [{ end: 60 }],
          },
        ],
      }),
    );
    expect(report.measurements.map((m) => [m.unit, m.value, m.protocol, m.digit])).toEqual([
      ['deg', 23.7, 'hip.internalRotation/prone', undefined],
      ['cm', 7.6, 'distance.kneeToWall/standing', undefined],
      ['deg', 60, 'fingerPip.flexion/sitting', 2],
    ]);
    // Simoneau et al. 1998 print 36 (9) prone, from memory: (23.67 − 36) / 9 = −1.37
    expect(report.measurements[0]!.norms.find((n) => n.set === 'simoneau-1998')).toEqual(
      jasmine.objectContaining({ kind: 'distribution', z: -1.37, percentile: 8.5, comparable: true }),
    );
    expect(JSON.stringify(report)).not.toMatch(/\d\.\d{5}/);
  });
});

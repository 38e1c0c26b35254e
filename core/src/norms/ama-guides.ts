import { point } from './entry.js';
import type { NormEntry, NormSet } from './types.js';

const third = (motion: NormEntry['motion'], expected: number, position?: NormEntry['position']): NormEntry =>
  point(motion, expected, 'medium', {
    ...(position ? { position } : {}),
    note: 'figure of the 3rd edition: the 4th prints impairment steps here, not normal values',
  });

/**
 * Committee figures for rating impairment. In the arm, "normal" is where
 * impairment first reaches zero; in the leg the 4th edition prints steps of
 * impairment, so the 3rd edition's figures stand here.
 */
export const AMA_GUIDES_4: NormSet = {
  id: 'ama-guides-4',
  title: 'American Medical Association, Guides to the Evaluation of Permanent Impairment, 4th edition',
  short: 'AMA Guides',
  year: 1993,
  where: 'charts by joint; pages not recalled',
  source: {
    cite: 'American Medical Association, Guides to the Evaluation of Permanent Impairment, 4th ed. 1993 (legs: 3rd ed.), as compiled in textbooks',
    fromMemory: true,
  },
  entries: [
    point('shoulder.flexion', 180, 'high'),
    point('shoulder.extension', 50, 'high'),
    point('shoulder.abduction', 180, 'high', { note: '170 already rates no impairment' }),
    point('shoulder.adduction', 50, 'medium', { note: '40 already rates no impairment' }),
    point('shoulder.internalRotation', 90, 'medium', { note: '80 already rates no impairment' }),
    point('shoulder.externalRotation', 90, 'medium', { note: '60 already rates no impairment' }),
    point('elbow.flexion', 140, 'high'),
    point('elbow.extension', 0, 'high'),
    point('forearm.pronation', 80, 'high'),
    point('forearm.supination', 80, 'high', { note: '70 already rates no impairment' }),
    point('wrist.flexion', 60, 'high'),
    point('wrist.extension', 60, 'high'),
    point('wrist.radialDeviation', 20, 'high'),
    point('wrist.ulnarDeviation', 30, 'high'),
    point('thumbMcp.flexion', 60, 'medium-high'),
    point('thumbMcp.extension', 0, 'medium', { note: 'the chart goes on to 40 past straight' }),
    point('thumbIp.flexion', 80, 'high'),
    point('thumbIp.extension', 10, 'low-medium', { note: '10 to 30 by edition' }),
    point('fingerMcp.flexion', 90, 'high'),
    point('fingerMcp.extension', 20, 'medium'),
    point('fingerPip.flexion', 100, 'high'),
    point('fingerPip.extension', 0, 'high'),
    point('fingerDip.flexion', 70, 'high'),
    point('fingerDip.extension', 0, 'medium'),
    third('hip.flexion', 100),
    third('hip.extension', 30),
    third('hip.abduction', 40),
    third('hip.adduction', 20),
    third('hip.internalRotation', 40),
    third('hip.externalRotation', 50),
    third('knee.flexion', 150),
    third('knee.extension', 0),
    third('ankle.dorsiflexion', 20),
    third('ankle.plantarflexion', 40),
    third('subtalar.inversion', 30, 'sitting'),
    third('subtalar.eversion', 20, 'sitting'),
    third('greatToeMtp.flexion', 30),
    third('greatToeMtp.extension', 50),
    third('greatToeIp.flexion', 30),
    third('greatToeIp.extension', 0),
    point('cervical.flexion', 50, 'medium-high', { note: '60 in older editions' }),
    point('cervical.extension', 60, 'medium-high', { note: '75 in older editions' }),
    point('cervical.lateralFlexion', 45, 'high'),
    point('cervical.rotation', 80, 'high'),
    point('thoracic.flexion', 50, 'medium', { position: 'standing' }),
    point('thoracic.rotation', 30, 'medium-high', { position: 'standing', note: 'bent forward, two inclinometers' }),
    point('lumbar.flexion', 60, 'medium-high', { position: 'standing', note: 'when sacral flexion is 45 or more' }),
    point('lumbar.extension', 25, 'high', { position: 'standing' }),
    point('lumbar.lateralFlexion', 25, 'high', { position: 'standing' }),
  ],
};

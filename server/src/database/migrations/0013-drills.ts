import { ID, owned, refuse, within } from './sql.js';
import { Steps } from './steps.js';

/** Drills of a clinic's own, version by version. */
export class Drills1700000000013 extends Steps {
  override readonly there = [
    owned('drill_version', [
      'drill_id VARCHAR(44) CHARACTER SET ascii COLLATE ascii_bin NOT NULL',
      'version INT NOT NULL',
      'in_use TINYINT(1) NOT NULL',
      'drill TEXT NOT NULL',
      `made_by ${ID} NOT NULL`,
      'made_at DATETIME(3) NOT NULL',
      'UNIQUE KEY drill_version_number (clinic_id, drill_id, version)',
      within('drill_version', 'made_by', 'user'),
      'CONSTRAINT drill_version_counts CHECK (version >= 1)',
    ]),
    refuse('drill_version_stays', 'drill_version', 'UPDATE', 'drill_version: what was given keeps its meaning'),
    refuse('drill_version_kept', 'drill_version', 'DELETE', 'drill_version: is kept'),
  ];

  override readonly back = [
    ...['drill_version_stays', 'drill_version_kept'].map((name) => `DROP TRIGGER IF EXISTS ${name}`),
    'DROP TABLE IF EXISTS drill_version',
  ];
}

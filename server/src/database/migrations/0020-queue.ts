import { ID, withinIfMissing } from './sql.js';
import { Steps } from './steps.js';

/** The caseload as a queue: where each episode of care stands in it, told by what was entered and by the day, and looked up by an index. */
export class Queue1700000000020 extends Steps {
  override readonly there = [
    `ALTER TABLE episode ADD COLUMN IF NOT EXISTS rank_key VARCHAR(20) NOT NULL DEFAULT '9',
       ADD COLUMN IF NOT EXISTS queue_standing TEXT NULL,
       ADD COLUMN IF NOT EXISTS whose_id ${ID} NULL,
       ADD COLUMN IF NOT EXISTS stale INT NOT NULL DEFAULT 1,
       ADD COLUMN IF NOT EXISTS stale_on DATE NOT NULL DEFAULT '1970-01-01',
       ADD COLUMN IF NOT EXISTS messages_seen_at DATETIME(3) NULL`,
    `ALTER TABLE episode ADD ${withinIfMissing('episode', 'whose_id', 'user')}`,
    `ALTER TABLE episode ADD KEY IF NOT EXISTS episode_queue (clinic_id, ended_on, rank_key, id),
       ADD KEY IF NOT EXISTS episode_own_queue (clinic_id, whose_id, ended_on, rank_key, id),
       ADD KEY IF NOT EXISTS episode_stale (stale, ended_on), ADD KEY IF NOT EXISTS episode_stale_on (ended_on, stale_on)`,
    'UPDATE episode e JOIN visit v ON v.clinic_id = e.clinic_id AND v.id = e.last_visit_id SET e.whose_id = v.examiner_id WHERE e.whose_id IS NULL',
  ];

  override readonly back = [
    'ALTER TABLE episode DROP FOREIGN KEY IF EXISTS episode_whose_id',
    'ALTER TABLE episode DROP KEY IF EXISTS episode_queue, DROP KEY IF EXISTS episode_own_queue, DROP KEY IF EXISTS episode_stale, DROP KEY IF EXISTS episode_stale_on',
    'ALTER TABLE episode DROP COLUMN IF EXISTS rank_key, DROP COLUMN IF EXISTS queue_standing, DROP COLUMN IF EXISTS whose_id, DROP COLUMN IF EXISTS stale, DROP COLUMN IF EXISTS stale_on, DROP COLUMN IF EXISTS messages_seen_at',
  ];
}

import { ID, TABLE } from './sql.js';
import { Steps } from './steps.js';

/**
 * What was entered since the queue was told, written in the transaction of the
 * entry itself. A reading is held by one statement, so its mark is a trigger.
 */
export class QueueMarks1700000000027 extends Steps {
  override readonly there = [
    `CREATE TABLE IF NOT EXISTS queue_mark (id BIGINT NOT NULL AUTO_INCREMENT PRIMARY KEY, clinic_id ${ID} NOT NULL, visit_id ${ID} NULL, episode_id ${ID} NULL) ${TABLE}`,
    `CREATE OR REPLACE TRIGGER trial_marks AFTER INSERT ON trial FOR EACH ROW
      INSERT INTO queue_mark (clinic_id, visit_id) VALUES (NEW.clinic_id, (SELECT m.visit_id FROM measurement m WHERE m.id = NEW.measurement_id))`,
  ];
  override readonly back = ['DROP TRIGGER IF EXISTS trial_marks', 'DROP TABLE IF EXISTS queue_mark'];
}

export {
  ON_THE_WAY,
  QUEUE_GROUPS,
  QUEUE_KINDS,
  queueStandingOf,
  type Message,
  type QueueFacts,
  type QueueGroup,
  type QueueKind,
  type QueueLine,
  type QueueReason,
  type QueueStanding,
} from './queue-standing.js';
export { lineWords, reasonWords } from './words.js';

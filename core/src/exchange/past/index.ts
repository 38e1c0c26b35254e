export { readDay, readValue } from './cells.js';
export {
  dayOrders,
  guessColumns,
  readPast,
  type PastColumn,
  type PastContext,
  type PastOptions,
  type PastReading,
  type RefusedPast,
} from './read.js';
export { DATE_ORDERS, MINUS_MEANS, PAST_ROLES, type DateOrder, type MinusMeans, type PastRole } from './roles.js';
export { told, type Told } from './words.js';

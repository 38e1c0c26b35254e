export { seriesOf, type Series, type SeriesPoint } from './series.js';

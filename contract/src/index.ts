export * from './assessment-file.js';
export * from './explain.js';
export * from './ids.js';
export * from './openapi.js';
export * from './records.js';
export * from './routes.js';

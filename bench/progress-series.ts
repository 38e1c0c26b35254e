import { NORM_SETS, progressOf } from '@dial-gauge/core';
import { progressSessions } from './progress-sessions.js';

// What the server would answer, for the page to draw.
console.log(JSON.stringify(progressOf(progressSessions(), { person: { birthDate: '1968-03-14', sex: 'female' }, normOrder: NORM_SETS })));

export { faceOf, feltAt, reachAt, sampleOf, trueTilt, type SimulatedDevice, type SimulatedMove, type Simulation } from './inclinometer.js';

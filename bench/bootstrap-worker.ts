/// <reference lib="webworker" />
import { bootstrapAtOnce, seededRandom, type StudyTable } from '@dial-gauge/core';

addEventListener('message', ({ data }: MessageEvent<{ table: StudyTable; resamples: number; seed: number }>) => {
  postMessage(bootstrapAtOnce(data.table, data.resamples, seededRandom(data.seed)));
});

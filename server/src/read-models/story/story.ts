import { STORY_MOST, type StoryView } from '@dial-gauge/contract';
import { drillsWith, findDrill, standsSince, type ProgressSeries } from '@dial-gauge/core';
import { Episode } from '../../records/episodes/entities.js';
import { episodeView } from '../../records/episodes/views.js';
import { PatientPageRow } from '../../records/patient-pages/entities.js';
import { loggedDays } from '../patient-log/logged.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { standingProgram } from '../programmes/programmes.js';
import { progressView } from '../progress/progress.js';
import { judgementView } from '../judgement/judgement.js';

const FORTNIGHT = 14 * 86_400_000;

/** An episode of care at a glance. */
export async function storyView(work: UnitOfWork, episodeId: string): Promise<StoryView> {
  const { manager, clinicId, now } = work;
  const row = await work.one(Episode, episodeId, 'episode of care');
  const progress = row.lastVisitId === null ? null : await progressView(work, row.lastVisitId);
  const visit = progress?.visits.filter(({ readings }) => readings > 0).at(-1) ?? null;
  const judgement = visit && (await judgementView(work, visit.id)).judgement;
  const program = row.lastVisitId === null ? null : await standingProgram(work, row.lastVisitId);
  const hasPage = await manager.existsBy(PatientPageRow, { clinicId, episodeId });
  const since = new Date(now.getTime() - FORTNIGHT).toISOString().slice(0, 10);
  const series = [...(progress?.series ?? [])].filter(({ points }) => points.length > 1).sort(goalsFirst);
  const known = drillsWith(program?.own ?? []);
  return {
    episode: episodeView(row),
    visit,
    findings: (judgement?.findings ?? [])
      .slice(0, STORY_MOST.findings)
      .map((finding) => ({ finding, since: standsSince(finding, progress?.series ?? []) })),
    findingsInAll: judgement?.findings.length ?? 0,
    notJudged: judgement?.notJudged.length ?? 0,
    series: series.slice(0, STORY_MOST.series),
    seriesInAll: series.length,
    program: program && {
      drills: program.drills.map(({ drill }) => findDrill(drill, known)?.name ?? drill),
      by: program.by,
      on: program.at.slice(0, 10),
      recheckOn: program.recheckOn,
    },
    loggedDays: hasPage ? (await loggedDays(work, episodeId)).filter(({ on }) => on >= since).length : null,
    standing: row.queueStanding,
  };
}

const goalsFirst = (a: ProgressSeries, b: ProgressSeries): number =>
  Number(b.goal !== null) - Number(a.goal !== null) || b.points.length - a.points.length;

import { STORY_MOST, type ProgressView, type StoryView } from '@dial-gauge/contract';
import { byChange, drillsWith, findDrill, standsSince, type Judgement, type ProgressSeries } from '@dial-gauge/core';
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
  const { series: allSeries, visits } = row.lastVisitId === null ? NOTHING_YET : await progressView(work, row.lastVisitId);
  const visit = visits.filter(({ readings }) => readings > 0).at(-1) ?? null;
  const judgement = visit ? (await judgementView(work, visit.id)).judgement : NOT_JUDGED;
  const hasPage = await manager.existsBy(PatientPageRow, { clinicId, episodeId });
  const since = new Date(now.getTime() - FORTNIGHT).toISOString().slice(0, 10);
  const series = byChange([...allSeries].filter(({ points }) => points.length > 1).sort(goalsFirst));
  return {
    episode: episodeView(row),
    visit,
    findings: judgement.findings.slice(0, STORY_MOST.findings).map((finding) => ({ finding, since: standsSince(finding, allSeries) })),
    findingsInAll: judgement.findings.length,
    notJudged: judgement.notJudged.length,
    series: series.slice(0, STORY_MOST.series),
    seriesInAll: series.length,
    program: row.lastVisitId === null ? null : await programAtAGlance(work, row.lastVisitId),
    loggedDays: hasPage ? (await loggedDays(work, episodeId)).filter(({ on }) => on >= since).length : null,
    standing: row.queueStanding,
  };
}

/** Before the first visit. */
const NOTHING_YET: Pick<ProgressView, 'series' | 'visits'> = { series: [], visits: [] };
const NOT_JUDGED: Pick<Judgement, 'findings' | 'notJudged'> = { findings: [], notJudged: [] };

async function programAtAGlance(work: UnitOfWork, visitId: string): Promise<StoryView['program']> {
  const program = await standingProgram(work, visitId);
  if (!program) return null;
  const known = drillsWith(program.own);
  const drills = program.drills.map(({ drill }) => findDrill(drill, known)?.name ?? drill);
  return { drills, by: program.by, on: program.at.slice(0, 10), recheckOn: program.recheckOn };
}

const goalsFirst = (a: ProgressSeries, b: ProgressSeries): number =>
  Number(b.goal !== null) - Number(a.goal !== null) || b.points.length - a.points.length;

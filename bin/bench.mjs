import { buildAll, ngBuild } from './lib/build.mjs';
import { needDebian, needNode, needPackages } from './lib/need.mjs';
import { inRoot } from './lib/paths.mjs';
import { run } from './lib/run.mjs';
import { main, say, Stop } from './lib/say.mjs';
import { startStack } from './lib/stack.mjs';

await main(async () => {
  needNode();
  await needDebian('mariadb-server', 'chromium', 'redis-tools');
  await needPackages();
  await buildAll();
  say('Building the empty page to compare with …');
  const empty = await ngBuild('empty');
  if (empty.code !== 0) throw new Stop(empty.output);

  say('');
  await run(process.execPath, ['--import', 'tsx', inRoot('bench/assess.ts')]);
  await run(process.execPath, ['--import', 'tsx', inRoot('bench/plan.ts')]);
  await run(process.execPath, ['--import', 'tsx', inRoot('bench/progress.ts')]);

  const { benchSave } = await import('../bench/save.mjs');
  const { examByKeyboard, examOnPaper } = await import('../bench/keyboard.mjs');
  const { firstScreenBytes } = await import('../bench/bytes.mjs');
  const { benchGrowth } = await import('../bench/growth.mjs');
  const { benchKilled } = await import('../bench/killed.mjs');
  const { benchLive } = await import('../bench/live.mjs');
  const { benchPapers } = await import('../bench/papers.mjs');
  const { auditSignIn } = await import('../bench/audit.mjs');
  const { benchProgressPage } = await import('../bench/progress-page.mjs');
  const { benchBootstrap } = await import('../bench/bootstrap.mjs');
  const { benchTherapists } = await import('../bench/therapists.mjs');
  const { benchFloods } = await import('../bench/floods.mjs');
  const { benchCohort } = await import('../bench/cohort.mjs');
  const { benchCluster } = await import('../bench/cluster.mjs');
  // On a stack of its own: what it writes would be in everybody's way after it.
  const papers = await startStack();
  try {
    await benchPapers(papers);
    await benchLive(papers);
    await benchTherapists(papers);
  } finally {
    await papers.stop();
  }
  // On one that has just started: its first judgement is timed.
  const flooded = await startStack();
  try {
    await benchFloods(flooded);
  } finally {
    await flooded.stop();
  }
  // Ten million readings take twenty minutes; a million show the same.
  const many = await startStack();
  try {
    await benchCohort(many);
  } finally {
    await many.stop();
  }
  await benchCluster();
  const stack = await startStack();
  try {
    await benchSave(stack);
    const { output } = await run(process.execPath, ['--import', 'tsx', inRoot('bench/progress-series.ts')], { quiet: true });
    const { tiles, drawn } = await benchProgressPage(stack, JSON.parse(output));
    const middle = drawn[Math.floor(drawn.length / 2)];
    say(
      `Progress with ${tiles} small charts: from a press to the frame with another motion drawn large, median ${middle.toFixed(0)} ms, ` +
        `worst of ${drawn.length} ${drawn[drawn.length - 1].toFixed(0)} ms`,
    );
    const ours = await firstScreenBytes(stack.url);
    const bare = await firstScreenBytes((await stack.serve({ DIAL_GAUGE_WEB_ROOT: inRoot('web/dist/empty/browser') })).url);
    const kB = (bytes) => `${(bytes / 1000).toFixed(1)} kB`;
    const parts = Object.entries(ours.sums)
      .map(([type, bytes]) => `${type.toLowerCase()} ${kB(bytes)}`)
      .join(', ');
    say(`first screen, compressed: ${kB(ours.total)} (${parts})`);
    say(`empty Angular + Material page of the same version, same server: ${kB(bare.total)}; ratio ${(ours.total / bare.total).toFixed(2)}`);
    const audit = await auditSignIn(stack.url);
    say(
      `sign-in page audited as on a telephone, middle of 3: performance ${audit.performance}, accessibility ${audit.accessibility} (${audit.details})`,
    );
    await benchGrowth(stack);
    await benchKilled(stack);
  } finally {
    await stack.stop();
  }

  const { resamples, worker, page, apart } = await benchBootstrap();
  say(
    `${resamples} resamples of 30 people × 3: in the worker ${worker.took.toFixed(0)} ms (six coefficients, two errors; page silent at most ${worker.longestGap.toFixed(0)} ms); ` +
      `one coefficient on the page by jStat (MIT) ${page.took.toFixed(0)} ms (page silent ${page.longestGap.toFixed(0)} ms); intervals differ by ${apart.toExponential(1)}`,
  );

  const { keys, drawn, whole } = await examByKeyboard();
  const sorted = [...drawn].sort((a, b) => a - b);
  const at = (share) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))].toFixed(0);
  say(
    `24 readings by keyboard: ${keys.digits} figures + ${keys.enter} Enter + ${keys.turn} Enter for the turn = ${keys.digits + keys.enter + keys.turn} keys, no sum; ` +
      `Enter to the next place drawn: median ${at(0.5)} ms, p95 ${at(0.95)} ms; first key to the last acknowledgement ${(whole / 1000).toFixed(1)} s`,
  );
  const paper = examOnPaper();
  const sums = Object.values(paper.sums).reduce((a, b) => a + b, 0);
  say(
    `the same on paper: ${paper.characters} characters of readings + ${paper.charactersOfResults} of results, ${sums} sums in the head, ${paper.lookedUp} norms looked up`,
  );
});

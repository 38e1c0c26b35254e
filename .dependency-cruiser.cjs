/**
 * Which way things point. Web, server and cli stand on contract and core; core
 * stands on nothing of ours. A rule that names a folder that does not exist is
 * refused: `npm run layers` looks before it begins.
 */
const { existsSync } = require('node:fs');
const { join } = require('node:path');

const never = (name, comment, from, to) => ({ name, comment, severity: 'error', from, to });
const SPEC = '\\.spec\\.ts$';

/** A folder of this repository, as a pattern. */
function folder(path) {
  if (!existsSync(join(__dirname, path))) throw new Error(`.dependency-cruiser.cjs names ${path}, which is not there`);
  return `^${path}/`;
}

/** The server's floors, from the bottom; what lies above them is the house itself: main, compose, worker, commands. */
const FLOORS = ['shared', 'database', 'records', 'read-models', 'use-cases', 'http'].map((floor) => `server/src/${floor}`);

/** Areas of use cases, from the bottom: each may use those before it. */
const AREAS = [
  'auditing', 'goals', 'norms', 'clinic', 'accounts', 'patients', 'visits', 'measuring', 'screening', 'retesting', 'treating', 'late-entries',
  'signing', 'documents', 'clips', 'importing', 'training', 'cohort', 'portal', 'queue', 'offline', 'live', 'erasing',
].map((area) => `server/src/use-cases/${area}`); // prettier-ignore

/** Rooms of the core, from the bottom: each may use those before it. */
const ROOMS = [
  'words', 'angle', 'notation', 'catalogue', 'error', 'norms', 'imposes', 'precaution', 'procedure', 'course', 'reading', 'simulate', 'picture',
  'screen', 'finding', 'plan', 'reason', 'progress', 'program', 'practice', 'cohort', 'queue', 'report', 'clip', 'exchange',
].map((room) => `core/src/${room}`); // prettier-ignore

/** Nothing imports what stands after it in a list. */
const inOrder = (list, name, comment) =>
  list
    .slice(0, -1)
    .map((path, at) =>
      never(
        `${name}: ${path.split('/').at(-1)}`,
        comment,
        { path: folder(path), pathNot: SPEC },
        { path: `^(${list.slice(at + 1).join('|')})/`, pathNot: SPEC },
      ),
    );

module.exports = {
  forbidden: [
    never('no-circles', 'Two files that need each other are one idea, or a third is missing.', {}, { circular: true }),
    never(
      'core-stands-alone',
      'The computation knows no contract, server, interface or terminal.',
      { path: folder('core') },
      { path: '^(contract|files|server|web|cli)/' },
    ),
    never(
      'core-has-no-io',
      'The computation reads no files, clock or network.',
      { path: folder('core'), pathNot: [SPEC, '^core/src/testing/'] },
      { dependencyTypes: ['core'] },
    ),
    never(
      'core-libraries',
      'Core takes small numeric libraries only, and the types of FHIR.',
      { path: folder('core'), pathNot: SPEC },
      { dependencyTypes: ['npm', 'npm-dev', 'npm-peer'], pathNot: 'node_modules/(simple-statistics|jstat|ts-fsrs|@medplum/fhirtypes)' },
    ),
    ...inOrder(ROOMS, 'core-rooms', 'Inside core nobody imports up.'),
    never(
      'contract-on-core',
      'The contract knows core ids and nothing else of ours.',
      { path: folder('contract') },
      { path: '^(files|server|web|cli)/' },
    ),
    never('files-on-contract', 'Files know core and contract, and no record.', { path: folder('files') }, { path: '^(server|web|cli)/' }),
    never(
      'server-without-web',
      'The server serves files; it does not import the interface.',
      { path: folder('server') },
      { path: '^(web|cli)/' },
    ),
    never('web-without-server', 'The interface talks over HTTP.', { path: folder('web') }, { path: '^(files|server|cli)/' }),
    never('web-without-node', 'The interface runs in a browser.', { path: folder('web/src') }, { dependencyTypes: ['core'] }),
    never('cli-without-server', 'The terminal face is core, contract and files.', { path: folder('cli') }, { path: '^(server|web)/' }),
    ...inOrder(FLOORS, 'server-floors', 'Floors of the server import downward only.'),
    ...inOrder(AREAS, 'use-case-areas', 'An area of use cases uses those before it.'),
    never(
      'floors-below-the-roof',
      'What is composed knows nothing of where it is composed.',
      { path: `^(${FLOORS.join('|')})/`, pathNot: SPEC },
      { path: '^server/src/[^/]+\\.ts$' },
    ),
    never(
      'records-know-no-http',
      'Records and the database know no HTTP.',
      { path: `^(${FLOORS.slice(1, 3).join('|')})/`, pathNot: SPEC },
      { path: 'node_modules/(express|@types/express|cookie|ws)(/|$)' },
    ),
    never(
      'a-migration-stands-still',
      'A migration does what it did when it was written: it runs no code of today.',
      { path: folder('server/src/database/migrations'), pathNot: SPEC },
      { path: '^(server|core|contract|files)/', pathNot: '^server/src/database/migrations/' },
    ),
    never(
      'resolvable',
      'An import that leads nowhere; a package of types alone leads nowhere at run time.',
      {},
      { couldNotResolve: true, pathNot: '^@medplum/fhirtypes$' },
    ),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
      extensions: ['.ts', '.mts', '.d.mts', '.mjs', '.js', '.json'],
    },
  },
};

/** Which way things point: web, server and cli stand on contract and core; core stands on nothing of ours. */
const never = (name, comment, from, to) => ({ name, comment, severity: 'error', from, to });
const SPEC = '\\.spec\\.ts$';

module.exports = {
  forbidden: [
    never('no-circles', 'Two files that need each other are one idea, or a third is missing.', {}, { circular: true }),
    never(
      'core-stands-alone',
      'The computation knows no contract, server, interface or terminal.',
      { path: '^core/' },
      { path: '^(contract|files|server|web|cli)/' },
    ),
    never(
      'core-has-no-io',
      'The computation reads no files, clock or network.',
      { path: '^core/', pathNot: SPEC },
      { dependencyTypes: ['core'] },
    ),
    never(
      'core-libraries',
      'Core takes small numeric libraries only, and the types of FHIR.',
      { path: '^core/', pathNot: SPEC },
      { dependencyTypes: ['npm', 'npm-dev', 'npm-peer'], pathNot: 'node_modules/(simple-statistics|jstat|ts-fsrs|@medplum/fhirtypes)' },
    ),
    never(
      'contract-on-core',
      'The contract knows core ids and nothing else of ours.',
      { path: '^contract/' },
      { path: '^(files|server|web|cli)/' },
    ),
    never(
      'server-without-web',
      'The server serves files; it does not import the interface.',
      { path: '^server/' },
      { path: '^(web|cli)/' },
    ),
    never('web-without-server', 'The interface talks over HTTP.', { path: '^web/' }, { path: '^(files|server|cli)/' }),
    never('web-without-node', 'The interface runs in a browser.', { path: '^web/src/' }, { dependencyTypes: ['core'] }),
    never('store-below-http', 'Records know nothing of requests.', { path: '^server/src/store/' }, { path: '^server/src/http/' }),
    never('files-on-contract', 'Files know core and contract, and no record.', { path: '^files/' }, { path: '^(server|web|cli)/' }),
    never('cli-without-server', 'The terminal face is core, contract and files.', { path: '^cli/' }, { path: '^(server|web)/' }),
    never('words-at-the-bottom', 'Inside core nobody imports up.', { path: '^core/src/words/' }, { path: '^core/src/(?!words/|terms)' }),
    never(
      'angle-at-the-bottom',
      'Inside core nobody imports up.',
      { path: '^core/src/angle/', pathNot: SPEC },
      { path: '^core/src/(catalogue|norms|finding|progress|plan|error|exchange)/' },
    ),
    never(
      'notation-below-catalogue',
      'Inside core nobody imports up.',
      { path: '^core/src/notation/' },
      { path: '^core/src/(norms|finding|progress|plan|exchange)/' },
    ),
    never(
      'error-below-finding',
      'Inside core nobody imports up.',
      { path: '^core/src/error/' },
      { path: '^core/src/(norms|finding|progress|plan|exchange)/' },
    ),
    never(
      'course-below-finding',
      'Inside core nobody imports up.',
      { path: '^core/src/course/' },
      { path: '^core/src/(finding|progress|plan|exchange)/' },
    ),
    never(
      'norms-below-finding',
      'Inside core nobody imports up.',
      { path: '^core/src/norms/' },
      { path: '^core/src/(finding|progress|plan|exchange)/' },
    ),
    never(
      'screen-below-reason',
      'Inside core nobody imports up.',
      { path: '^core/src/screen/', pathNot: SPEC },
      { path: '^core/src/(reason|finding|plan|progress|exchange)/' },
    ),
    never(
      'finding-below-reason',
      'Inside core nobody imports up.',
      { path: '^core/src/(finding|plan|progress)/', pathNot: SPEC },
      { path: '^core/src/(reason|exchange)/' },
    ),
    never(
      'finding-below-progress',
      'Inside core nobody imports up.',
      { path: '^core/src/finding/' },
      { path: '^core/src/(progress|plan|exchange)/' },
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

import { readFileSync, writeFileSync } from 'node:fs';
import { inRoot } from './lib/paths.mjs';

/** The few icons in use, as text in the program: nothing is fetched at run time. */
const NAMES = [
  'account_circle',
  'add',
  'arrow_back',
  'arrow_downward',
  'arrow_upward',
  'check',
  'close',
  'contrast',
  'download',
  'drag_indicator',
  'keyboard',
  'lock',
  'lock_open',
  'menu_book',
  'print',
  'school',
  'search',
  'straighten',
  'sync',
  'tune',
  'undo',
];

const rows = NAMES.map((name) => {
  const svg = readFileSync(inRoot('node_modules/@material-symbols/svg-400/outlined', `${name}.svg`), 'utf8').trim();
  return `  ${name}: '${svg}',`;
});
writeFileSync(
  inRoot('web/src/app/ui/icons.generated.ts'),
  `// Made by "npm run icons" from Material Symbols (Apache-2.0).\nexport const ICONS = {\n${rows.join('\n')}\n} as const;\n`,
);

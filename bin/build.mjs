import { buildAll } from './lib/build.mjs';
import { needNode, needPackages } from './lib/need.mjs';
import { main } from './lib/say.mjs';

await main(async () => {
  needNode();
  await needPackages();
  await buildAll();
});

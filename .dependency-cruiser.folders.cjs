/** Circles between folders. Specs and what they share stand beside the code and may look anywhere: they are left out. */
const { options } = require('./.dependency-cruiser.cjs');

module.exports = {
  forbidden: [
    {
      name: 'no-circles-of-folders',
      comment: 'Two folders that need each other are one, or a third is missing.',
      severity: 'error',
      scope: 'folder',
      from: {},
      to: { circular: true },
    },
  ],
  options: { ...options, exclude: { path: '(\\.spec\\.ts$|/testing/|/testing\\.ts$)' } },
};

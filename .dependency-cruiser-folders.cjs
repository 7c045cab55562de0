// Folders are rooms: what one needs stands below it, and no two need each other. Tests may look into any room.
const { options } = require('./.dependency-cruiser.cjs');

module.exports = {
  forbidden: [
    {
      name: 'no-circles-between-folders',
      severity: 'error',
      scope: 'folder',
      from: { path: '^packages/(core|server|web)/src/.' },
      to: { circular: true },
    },
  ],
  options: {
    ...options,
    exclude: { path: [options.exclude.path, '\\.test\\.tsx?$', '/testing/'] },
  },
};

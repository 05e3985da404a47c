/**
 * Which room may import which. Each list of rooms stands in order: a room knows those before it, never those behind it.
 * docs/architecture.md shows the same as a picture.
 */
const CORE = [
  'messages',
  'music',
  'instrument',
  'document',
  'hand',
  'chords',
  'taste',
  'arrange',
  'audit',
  'lesson',
  'output',
  'input',
  'edit',
  'studio',
  'schema',
  'formats',
]
const INSIDE = {
  'core/src/music': ['pitch', 'harmony', 'time'],
  'core/src/document': ['form', 'freshness', 'migrate'],
  'core/src/hand': ['moves', 'grip', 'picking', 'effort', 'ring'],
  'core/src/arrange': [
    'ornament',
    'plan',
    'accompany',
    'search',
    'manual',
    'slide',
    'whole',
    'simplify',
    'fit',
    'harmonise',
  ],
  'core/src/lesson': ['steps', 'practice', 'text', 'replay'],
  'core/src/output': [
    'abc',
    'notation',
    'text',
    'song',
    'layout',
    'engrave',
    'handout',
    'json',
    'sound',
    'midi',
    'musicxml',
  ],
  'core/src/input': ['abc', 'audio', 'text', 'song', 'musicxml', 'midi', 'any'],
}

/** Of the interface: what is shared first, then the features (the later ones build on the earlier), then what holds them. */
const WEB = ['texts', 'workers', 'state', 'ui', 'score', 'features', 'app']
const WEB_INSIDE = {
  'web/src/score': ['sheet', 'playback', 'neck', 'edit'],
  'web/src/features': [
    'shelf',
    'shapes',
    'neck',
    'settings',
    'tune',
    'fit',
    'taste',
    'arrange',
    'lesson',
    'practise',
    'handout',
    'students',
    'repertoire',
    'sets',
  ],
}

const inOrder = (folder, rooms) =>
  rooms.slice(0, -1).map((room, i) => ({
    name: `${folder}: ${room} before ${rooms[i + 1]}`,
    severity: 'error',
    from: { path: `^${folder}/${room}/` },
    to: { path: `^${folder}/(${rooms.slice(i + 1).join('|')})/` },
  }))

module.exports = {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-stands-alone',
      severity: 'error',
      comment: 'The core knows no interface, server or runtime.',
      from: { path: '^core/src' },
      to: { path: '^(web|server|cli|bench|e2e)/|node_modules/(react|express|@mantine|dexie|vexflow)' },
    },
    {
      name: 'core-no-node',
      severity: 'error',
      from: { path: '^core/src' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'no-words-in-the-core',
      severity: 'error',
      comment: 'What the core says leaves it as a code with values; only its types know the catalogue.',
      from: { path: '^core/src', pathNot: '^core/src/messages/(english|index)' },
      to: { path: '^core/src/messages/english', dependencyTypesNot: ['type-only'] },
    },
    ...inOrder('core/src', CORE),
    ...Object.entries(INSIDE).flatMap(([folder, rooms]) => inOrder(folder, rooms)),
    {
      name: 'audit-judges-alone',
      severity: 'error',
      comment: 'The audit judges the finished tab: it knows nothing of how it was found.',
      from: { path: '^core/src/audit' },
      to: { path: '^core/src/(arrange|chords|hand)/' },
    },
    {
      name: 'output-knows-no-search',
      severity: 'error',
      comment: 'What is drawn or sounded comes from the finished tab.',
      from: { path: '^core/src/output/(layout|engrave|sound)/' },
      to: { path: '^core/src/(arrange/search|audit)/' },
    },
    ...inOrder('web/src', WEB),
    ...Object.entries(WEB_INSIDE).flatMap(([folder, rooms]) => inOrder(folder, rooms)),
    {
      name: 'lesson-file-alone',
      severity: 'error',
      comment: 'The program inside a lesson file is a program of its own: small, without the app.',
      from: { path: '^web/src/lessonFile/' },
      to: { path: `^web/src/(${WEB.filter((room) => room !== 'score').join('|')})/` },
    },
    {
      name: 'web-not-server',
      severity: 'error',
      from: { path: '^web/src' },
      to: { path: '^(server|cli|bench)/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.base.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'default'],
      extensions: ['.ts', '.tsx', '.js', '.mjs'],
    },
  },
}

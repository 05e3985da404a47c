/** Signs of a tab note that are on or off. */
export const MARKS = [
  'letRing',
  'palmMute',
  'accent',
  'staccato',
  'fermata',
  'vibrato',
  'damp',
  'optional',
] as const
export type Mark = (typeof MARKS)[number]

import type { TuneDoc } from './tune.ts'

/** True for a tune that is words with chords and no melody. */
export const isSongAlone = ({ song, events }: Pick<TuneDoc, 'song' | 'events'>): boolean =>
  song !== undefined && events.every((e) => !e.pitch)

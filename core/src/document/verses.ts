import type { TuneEvent } from './tune.ts'

/** What is sung on a note, verse by verse. */
export const versesOf = ({ lyric = '', moreLyrics = [] }: TuneEvent): string[] => [lyric, ...moreLyrics]

/** Songs read: words with chords over or inside them, ChordPro, grids of chords. */
export type { ReadSong, WrittenLine, WrittenPart } from './readSong.ts'
export { looksLikeSong, readSong, songsIn } from './readingSong.ts'
export { CAPO_MEANINGS, type CapoMeaning } from '../capoMeaning.ts'
export { type SongChoices, type SongTune, tuneOfSong } from './songTune.ts'

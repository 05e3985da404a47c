/** MusicXML read: scores that others wrote, and tabs. */
export { readingMusicXml, type MusicXmlReading } from './readingMusicXml.ts'
export { isMusicXml } from './isMusicXml.ts'
export { scoreInMxl } from './scoreInMxl.ts'

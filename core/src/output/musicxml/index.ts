/** MusicXML 4.0: scores and tab, written and read. */
export { writeMusicXml } from './writeMusicXml.ts'

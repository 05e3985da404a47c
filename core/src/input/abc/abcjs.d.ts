/** The parts of abcjs's parse result that the reader uses. Seen in abcjs 6.7.2; offsets count from the parsed text. */
declare module 'abcjs/src/api/abc_tunebook.js' {
  export interface AbcPitch {
    pitch: number
    accidental?: string
    startTie?: object
    endTie?: boolean
    startSlur?: object[]
    endSlur?: unknown[]
  }
  export interface AbcElement {
    el_type: string
    startChar: number
    endChar: number
    duration?: number
    pitches?: AbcPitch[]
    rest?: { type: string; text?: number }
    chord?: { name: string; position: string }[]
    gracenotes?: { pitch: number; accidental?: string }[]
    decoration?: string[]
    lyric?: { syllable: string; divider: string }[]
    startTriplet?: number
    tripletMultiplier?: number
    tripletR?: number
    endTriplet?: boolean
    type?: string
    startEnding?: string
    endEnding?: boolean
    title?: string
    value?: { num: string; den: string }[]
    root?: string
    acc?: string
    mode?: string
    accidentals?: { acc: string; note: string }[]
    bpm?: number
    tempo?: AbcTempo
  }
  export interface AbcTempo {
    duration?: number[]
    bpm?: number
  }
  export interface AbcStaff {
    clef?: { type: string; transpose?: number }
    key?: Pick<AbcElement, 'root' | 'acc' | 'mode' | 'accidentals'>
    meter?: Pick<AbcElement, 'type' | 'value'>
    voices: AbcElement[][]
  }
  export interface AbcTune {
    metaText: { title?: string; composer?: string; source?: string; tempo?: AbcTempo; partOrder?: string }
    lines: { staff?: AbcStaff[] }[]
    warnings?: string[]
  }
  const book: { parseOnly(text: string): AbcTune[] }
  export default book
}

declare module 'abcjs/src/tablatures/instruments/string-patterns.js' {
  /** What the notation library uses to place notes on strings; string 0 is the highest. */
  export default class StringPatterns {
    constructor(plugin: {
      readonly tuning: readonly string[]
      readonly capo: number
      readonly params: { readonly highestNote: string }
      readonly linePitch: number
    })
    /** Accidentals so far in the measure. */
    measureAccidentals: Record<string, string>
    notesToNumber(notes: readonly { readonly name: string }[]): {
      readonly notes: readonly { readonly num: number; readonly str: number }[]
    }
  }
}

/** The command line cannot be understood. The message says what is wrong and what would do. */
export declare class UsageError extends Error {
  readonly name = 'UsageError'
}
/** One of a list of words. */
export declare function oneOf<T extends string>(value: string, allowed: readonly T[], option: string): T
/** A whole number in a range. */
export declare function wholeNumber(value: string, low: number, high: number, option: string): number
/** A number of semitones, up or down. */
export declare function semitones(text: string, option: string): number

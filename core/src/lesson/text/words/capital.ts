/** A text that begins a sentence. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

/** A sentence in the middle of another. */
export const uncapital = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1)

/** Text tab read and made a score; problems with line and column; bytes as text. */
export type { Problem } from './problem.ts'
export { decodeSource, isJson, LARGEST_SOURCE_BYTES, type SourceText } from './sourceText.ts'
export type { ReadMeasure, ReadSign, ReadTab } from './text/readTab.ts'
export { looksLikeTab, readingTextTab, readTextTab } from './text/readTextTab.ts'
export { scoreOfTab, scoringTab, TabReadError, type TabScore } from './text/scoreOfTab.ts'
export type { Lead, TabToken } from './text/tabTokens.ts'

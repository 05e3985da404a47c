import { plainLines } from '../sourceText.ts'
import { splitBook } from './splitBook.ts'

/** The tunes of a book as texts, each with the fields that the book says for all. */
export const tuneTexts = (book: string): string[] => splitBook(plainLines(book)).map((t) => t.text)

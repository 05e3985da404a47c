import { withoutEntities, withoutMailMarks } from '../foundText.ts'
import { plainLines, untabbed } from '../sourceText.ts'

/**
 * A text as it is found on pages and in mails made plain: one kind of line end, entities as what they stand for, tabulators
 * as spaces to every eighth column, non-breaking spaces as spaces, no tags of a page, no marks of a quoted mail. Line numbers stay.
 */
export const plainSongText = (text: string): string => {
  const lines = withoutEntities(plainLines(text))
    .replace(
      /<\/?(?:pre|p|div|span|b|i|em|strong|u|a|code|br|hr|html|body|font|tt|h[1-6])(?:\s[^<>]*)?\/?>/gi,
      '',
    )
    .replace(/[\u00A0\u2007\u202F]/g, ' ')
    .replace(/[\u2502\u2503\uFF5C\u00A6]/g, '|')
    .split('\n')
  return withoutMailMarks(lines)
    .map((l) => untabbed(l).trimEnd())
    .join('\n')
}

/** Letters in one line of words to the student. */
const REMARK_LINE = 30

/** Words in at most two lines. */
export function remarkLines(text: string): string[] {
  if (text.length <= REMARK_LINE) return [text]
  const at = text.lastIndexOf(' ', REMARK_LINE)
  const cut = at > 0 ? at : REMARK_LINE
  return [text.slice(0, cut), text.slice(cut).trim()]
}

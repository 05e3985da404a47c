import { execFileSync } from 'node:child_process'

const said = (program: string, ...rest: readonly string[]) =>
  execFileSync(program, rest, { encoding: 'utf8' })

export const pdfPages = (path: string): number => Number(/Pages:\s+(\d+)/.exec(said('pdfinfo', path))![1])
export const pdfInfo = (path: string): string => said('pdfinfo', path)
export const pdfFonts = (path: string): string => said('pdffonts', path)
export const pdfText = (path: string): string => said('pdftotext', '-layout', path, '-')

/** The words of each page. */
export const pdfSheets = (path: string): string[] =>
  pdfText(path)
    .split('\f')
    .filter((sheet) => sheet.trim() !== '')

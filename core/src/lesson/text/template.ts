/** Puts values into the braces of a template. @example fill('string {string}', { string: 4 }) // 'string 4' */
export const fill = (template: string, values: Readonly<Record<string, string | number>>): string =>
  template.replace(/\{(\w+)\}/g, (_, name: string) => String(values[name] ?? ''))

/** The values that were put into a template, read from the finished text; undefined where it is of another template. */
export function readBack(template: string, text: string): Readonly<Record<string, string>> | undefined {
  const pattern = template
    .split(/\{(\w+)\}/)
    .map((part, i) => (i % 2 === 0 ? part.replace(/[.*+?^${}()|[\]\\]/g, '\\$&') : `(?<${part}>.+?)`))
    .join('')
  const match = new RegExp(`^${pattern}$`).exec(text)
  return match ? { ...match.groups } : undefined
}

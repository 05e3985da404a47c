/** One drawn thing of a picture: its element, class, numbers, and its words. */
export interface SvgMark {
  readonly name: string
  readonly kind: string
  readonly x: number
  readonly y: number
  readonly text: string
  readonly path: string
  readonly attributes: Readonly<Record<string, string>>
}

const decoded = (text: string): string =>
  text.replace(/&#(\d+);/g, (_, c: string) => String.fromCharCode(Number(c)))

/** Everything that a picture draws, in its order, as somebody sees it: read from the finished text alone. */
export function svgMarks(svg: string): SvgMark[] {
  const elements = svg.matchAll(/<(text|path|circle|rect)\b([^>]*?)(?:\/>|>([^<]*)<\/\1>)/g)
  return [...elements].map(([, name, list, text = '']) => {
    const attributes = Object.fromEntries(
      [...list!.matchAll(/([\w-]+)="([^"]*)"/g)].map(([, k, v]) => [k!, decoded(v!)]),
    )
    return {
      name: name!,
      kind: attributes['class'] ?? '',
      x: Number(attributes['x'] ?? attributes['cx'] ?? NaN),
      y: Number(attributes['y'] ?? attributes['cy'] ?? NaN),
      text: decoded(text),
      path: attributes['d'] ?? '',
      attributes,
    }
  })
}

/** The parts of a tab's picture, measure by measure. */
export const measureParts = (svg: string): [number, string][] =>
  [...svg.matchAll(/<g data-measure="(\d+)">(.*?)<\/g>/g)].map(([, index, body]) => [Number(index), body!])

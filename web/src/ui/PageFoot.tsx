/** A text as CSS writes it between quotes. */
export const cssText = (text: string): string =>
  `"${text.replace(/[\\"\n\r\f<]/g, (c) => `\\${c.charCodeAt(0).toString(16)} `)}"`

/** What stands at the foot of every sheet of paper while this is on the page: the title, and which sheet of how many. */
export function PageFoot({ title }: { title: string }) {
  const look = `font: 9.5px 'Figtree Variable', sans-serif; color: #444; vertical-align: top; padding-top: 6px;`
  return (
    <style>
      {`@page {
        @bottom-left { content: ${cssText(title)}; ${look} }
        @bottom-right { content: counter(page) " / " counter(pages); ${look} }
      }`}
    </style>
  )
}

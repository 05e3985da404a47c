import { useVirtualizer } from '@tanstack/react-virtual'
import { useLayoutEffect, useRef, useState, type ReactNode, type Ref } from 'react'

/** Height of a line before it has been drawn, in pixels. */
const USUAL_HEIGHT = 42

/** Lines that are drawn above and below those in view. */
const AROUND = 12

/** Of very many lines of a table those in view and some around them; the others are room. */
export function LinesInView({
  count,
  line,
}: {
  readonly count: number
  readonly line: (index: number, ref: Ref<HTMLTableRowElement>) => ReactNode
}) {
  const body = useRef<HTMLTableSectionElement>(null)
  const room = () => body.current?.closest<HTMLElement>('.stage-room') ?? null
  const [margin, setMargin] = useState(0)
  // What stands above the table may come and go.
  useLayoutEffect(() => {
    const around = room()
    if (!body.current || !around) return
    const top = body.current.getBoundingClientRect().top - around.getBoundingClientRect().top
    setMargin(Math.round(top + around.scrollTop))
  }, [count])
  const lines = useVirtualizer({
    count,
    getScrollElement: room,
    estimateSize: () => USUAL_HEIGHT,
    overscan: AROUND,
    scrollMargin: margin,
  })
  const shown = lines.getVirtualItems()
  const above = (shown[0]?.start ?? margin) - margin
  const below = lines.getTotalSize() - ((shown.at(-1)?.end ?? margin) - margin)
  return (
    <tbody ref={body}>
      <Room height={above} />
      {shown.map(({ index }) => line(index, lines.measureElement))}
      <Room height={below} />
    </tbody>
  )
}

const Room = ({ height }: { height: number }) =>
  height > 0 ? (
    <tr aria-hidden style={{ height }}>
      <td />
    </tr>
  ) : null

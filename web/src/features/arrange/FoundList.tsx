import type { SheetPosition } from '../../score/sheet/sheetModel.ts'

/** Something found in a measure. */
export interface FoundPlace {
  readonly key: string
  readonly position: SheetPosition
  /** The measure, where the text does not name it. */
  readonly where?: string
  readonly text: string
}

/** Things found in an arrangement, folded under a heading; each leads to its place. */
export function FoundList({
  title,
  found,
  testId,
  open,
  onPosition,
}: {
  title: string
  found: readonly FoundPlace[]
  testId: string
  open?: boolean
  onPosition: (position: SheetPosition) => void
}) {
  return (
    <details className="reasons" data-testid={testId} open={open}>
      <summary>{title}</summary>
      <ul className="problems">
        {found.map((f) => (
          <li key={f.key}>
            <button onClick={() => onPosition(f.position)}>
              {f.where ? <strong>{f.where} </strong> : null}
              {f.text}
            </button>
          </li>
        ))}
      </ul>
    </details>
  )
}

import type { SheetPosition } from '../../score/sheet/sheetModel.ts'

/** Something found in a measure. */
export interface FoundPlace {
  readonly key: string
  readonly spot: SheetPosition
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
  onSpot,
}: {
  title: string
  found: readonly FoundPlace[]
  testId: string
  open?: boolean
  onSpot: (spot: SheetPosition) => void
}) {
  return (
    <details className="reasons" data-testid={testId} open={open}>
      <summary>{title}</summary>
      <ul className="problems">
        {found.map((f) => (
          <li key={f.key}>
            <button onClick={() => onSpot(f.spot)}>
              {f.where ? <strong>{f.where} </strong> : null}
              {f.text}
            </button>
          </li>
        ))}
      </ul>
    </details>
  )
}

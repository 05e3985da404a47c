import { UnstyledButton } from '@mantine/core'
import { countAt, measureLength } from '@velvet-porch/core/music'
import { stepTicks, type Pattern, type PatternStep, type PatternString } from '@velvet-porch/core/arrange'
import { useTranslation } from 'react-i18next'
import { hasString, strokeCell, withNextStroke, withSign, withString } from './gridCells.ts'
import css from './PatternGrid.module.css'

const STROKE_SIGNS = { none: '', down: '⊓', up: '∨', downTrebles: '⊓′', upTrebles: '∨′', muted: '×' } as const
const STRINGS = [1, 2, 3, 4] as const

/** A pattern on its beat grid: a column a step, a row a string; clicking puts in and takes out. */
export function PatternGrid({
  pattern,
  onChange,
}: {
  pattern: Pattern
  onChange: (pattern: Pattern) => void
}) {
  const { t } = useTranslation()
  const length = stepTicks(pattern)
  const whole = measureLength(pattern.metre)
  const counts = pattern.steps.map((_, i) => countAt(pattern.metre, (i * length) % whole) ?? '')
  const set = (i: number, step: PatternStep | undefined) =>
    onChange({ ...pattern, steps: pattern.steps.map((s, k) => (k === i ? step : s)) })
  const stringRow = (label: string, string: PatternString, sign: string) => (
    <Row key={label} label={label} counts={counts}>
      {(i) => ({
        on: hasString(pattern.steps[i], string),
        sign,
        onClick: () => set(i, withString(pattern.steps[i], string)),
      })}
    </Row>
  )
  return (
    <div className={css['pattern-grid-box']}>
      <table className={css['pattern-grid']} aria-label={t('pattern.grid')}>
        <thead>
          <tr>
            <td />
            {counts.map((c, i) => (
              <th key={i} scope="col" className={/^\d/.test(c) ? 'on-beat' : undefined}>
                {c}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <Row label={t('pattern.rows.accent')} counts={counts}>
            {(i) => ({
              on: pattern.steps[i]?.accent ?? false,
              sign: '>',
              disabled: !pattern.steps[i],
              onClick: () => set(i, withSign(pattern.steps[i], 'accent')),
            })}
          </Row>
          <Row label={t('pattern.rows.palm')} counts={counts}>
            {(i) => ({
              on: pattern.steps[i]?.palm ?? false,
              sign: '_',
              disabled: !pattern.steps[i],
              onClick: () => set(i, withSign(pattern.steps[i], 'palm')),
            })}
          </Row>
          <Row label={t('pattern.rows.stroke')} counts={counts}>
            {(i) => {
              const cell = strokeCell(pattern.steps[i])
              return {
                on: cell !== 'none',
                sign: STROKE_SIGNS[cell],
                value: t(`pattern.strokes.${cell}`),
                onClick: () => set(i, withNextStroke(pattern.steps[i])),
              }
            }}
          </Row>
          {STRINGS.map((string) =>
            stringRow(t('pattern.rows.string', { string }), { of: 'string', string }, String(string)),
          )}
          {stringRow(t('pattern.rows.other'), { of: 'other' }, 'a')}
          {stringRow(t('pattern.rows.bass'), { of: 'bass' }, 'b')}
        </tbody>
      </table>
    </div>
  )
}

interface Cell {
  readonly on: boolean
  readonly sign: string
  readonly value?: string
  readonly disabled?: boolean
  readonly onClick: () => void
}

function Row({
  label,
  counts,
  children,
}: {
  label: string
  counts: readonly string[]
  children: (step: number) => Cell
}) {
  const { t } = useTranslation()
  return (
    <tr>
      <th scope="row">{label}</th>
      {counts.map((count, i) => {
        const { on, sign, value, disabled = false, onClick } = children(i)
        const name = t('pattern.cell', { row: label, at: `${i + 1}: ${count}` })
        return (
          <td key={i} className={/^\d/.test(count) ? 'on-beat' : undefined}>
            <UnstyledButton
              className={on ? `${css['pattern-cell']} on` : css['pattern-cell']}
              aria-label={value ? `${name}: ${value}` : name}
              aria-pressed={on}
              disabled={disabled}
              onClick={onClick}
            >
              {on ? sign : ''}
            </UnstyledButton>
          </td>
        )
      })}
    </tr>
  )
}

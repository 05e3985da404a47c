import { mod12, spellInChord, type ChordReading } from '@velvet-porch/core/music'
import { pitchAt, type LeftFinger, type Setup } from '@velvet-porch/core/instrument'
import { useTranslation } from 'react-i18next'
import { useNames } from '../names/useNames.ts'
import { usePrefs } from '../../state/prefs.ts'
import { degreeLabel } from './degreeLabel.ts'
import css from './ChordBox.module.css'

interface Props {
  readonly setup: Setup
  readonly frets: readonly (number | null)[]
  readonly fingers: readonly LeftFinger[]
  readonly chord?: ChordReading | undefined
  readonly size?: number
}

/** Fret spaces that a box shows at least. */
const SPACES = 4

/**
 * A chord box: strings, frets, finger digits (or note names, or degrees), open and silent strings. Upright as teachers
 * draw it, sideways, and mirrored for the left hand.
 */
export function ChordBox({ setup, frets, fingers, chord, size = 1 }: Props) {
  const { t } = useTranslation()
  const names = useNames()
  const { boxes, labels } = usePrefs()
  const left = setup.player.handedness === 'left'
  const strings = frets.length
  const pressed = frets.filter((f): f is number => f !== null && f > 0)
  const highest = Math.max(SPACES, ...pressed)
  const top = highest <= SPACES + 1 ? 0 : Math.min(...pressed) - 1
  const spaces = Math.max(SPACES, highest - top)
  const upright = boxes === 'upright'
  const gap = 17
  const space = 21
  const lead = 24
  const along = lead + spaces * space + 8
  const across = (strings - 1) * gap + 34
  const width = upright ? across : along
  const height = upright ? along : across
  // Seen along the neck: u runs from the nut, v from the lowest string.
  const point = (string: number, u: number): { x: number; y: number } => {
    const fromLow = strings - string
    const v = 17 + (left && upright ? strings - 1 - fromLow : fromLow) * gap
    if (upright) return { x: v, y: u }
    return { x: left ? width - u : u, y: height - v }
  }
  const line = (a: { x: number; y: number }, b: { x: number; y: number }, w: number, ink = 'var(--ink)') => (
    <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke={ink} strokeWidth={w} strokeLinecap="square" />
  )
  const labelOf = (string: number): string => {
    const fret = frets[string - 1]!
    const midi = pitchAt(setup, { string, fret })
    if (labels === 'degrees' && chord) return degreeLabel(chord, mod12(midi))
    if (labels === 'notes')
      return chord ? names.note(spellInChord(chord, mod12(midi))) : names.pitch(midi).replace(/\d$/, '')
    const finger = fingers[string - 1]
    return finger ? String(finger) : ''
  }
  const spoken = frets
    .map((fret, i) => {
      const string = i + 1
      if (fret === null) return t('shapes.spoken.silent', { string })
      if (fret === 0) return t('shapes.spoken.open', { string })
      const finger = fingers[i]
      return finger
        ? t('shapes.spoken.pressed', { string, fret, finger })
        : t('shapes.spoken.atFret', { string, fret })
    })
    .reverse()
    .join(', ')
  const all = Array.from({ length: strings }, (_, i) => i + 1)
  return (
    <svg
      className={css['chord-box']}
      viewBox={`0 0 ${width} ${height}`}
      width={width * size}
      height={height * size}
      role="img"
      aria-label={spoken}
    >
      {all.map((s) => (
        <g key={s}>{line(point(s, lead), point(s, lead + spaces * space), 1, 'var(--wood)')}</g>
      ))}
      {Array.from({ length: spaces + 1 }, (_, f) => (
        <g key={f}>
          {line(
            point(1, lead + f * space),
            point(strings, lead + f * space),
            f === 0 && top === 0 ? 4 : 1,
            f === 0 && top === 0 ? 'var(--ink)' : 'var(--rule)',
          )}
        </g>
      ))}
      {top > 0 ? (
        <FretLabel
          at={point(upright && left ? 1 : strings, lead + space / 2)}
          fret={top + 1}
          upright={upright}
          left={left}
        />
      ) : null}
      <Barres fingers={fingers} frets={frets} point={(s, f) => point(s, lead + (f - top - 0.5) * space)} />
      {all.map((s) => {
        const fret = frets[s - 1]!
        if (fret === null) {
          const at = point(s, lead - 11)
          return (
            <text key={s} x={at.x} y={at.y + 4} className={css['box-sign']}>
              ×
            </text>
          )
        }
        const at = fret === 0 ? point(s, lead - 11) : point(s, lead + (fret - top - 0.5) * space)
        const label = labelOf(s)
        if (fret === 0)
          return (
            <g key={s}>
              <circle cx={at.x} cy={at.y} r={labels === 'fingers' ? 4.5 : 7.5} className={css['box-open']} />
              {labels === 'fingers' ? null : (
                <text x={at.x} y={at.y + 3} className={css['box-open-label']}>
                  {label}
                </text>
              )}
            </g>
          )
        return (
          <g key={s}>
            <circle cx={at.x} cy={at.y} r={8} className={css['box-dot']} />
            <text x={at.x} y={at.y + 3.8} className={css['box-label']}>
              {label}
            </text>
          </g>
        )
      })}
    </svg>
  )
}

function FretLabel({
  at,
  fret,
  upright,
  left,
}: {
  at: { x: number; y: number }
  fret: number
  upright: boolean
  left: boolean
}) {
  return upright ? (
    <text x={at.x + (left ? 13 : -13)} y={at.y + 4} className={css['box-fret']}>
      {fret}
    </text>
  ) : (
    <text x={at.x} y={at.y + 15} className={css['box-fret']}>
      {fret}
    </text>
  )
}

function Barres({
  frets,
  fingers,
  point,
}: {
  frets: readonly (number | null)[]
  fingers: readonly LeftFinger[]
  point: (string: number, fret: number) => { x: number; y: number }
}) {
  return [1, 2, 3, 4].map((finger) => {
    const strings = fingers.flatMap((f, i) => (f === finger ? [i + 1] : []))
    if (strings.length < 2) return null
    const fret = frets[strings[0]! - 1]!
    const a = point(strings[0]!, fret)
    const b = point(strings.at(-1)!, fret)
    return <line key={finger} x1={a.x} y1={a.y} x2={b.x} y2={b.y} className={css['box-barre']} />
  })
}

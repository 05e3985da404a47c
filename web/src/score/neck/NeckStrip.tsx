import { fingerFromNut, fretFromNut, type Setup } from '@velvet-porch/core/instrument'
import type { PressedPlace } from '@velvet-porch/core/document'
import { useTranslation } from 'react-i18next'

/** The whole neck, thin, beside the standing one: where the window and the hand are. */
export function NeckStrip({
  setup,
  from,
  to,
  pressed,
}: {
  setup: Setup
  from: number
  to: number
  pressed: readonly PressedPlace[]
}) {
  const { t } = useTranslation()
  const { instrument } = setup
  const capo = setup.capo[0]!
  const total = fretFromNut(instrument.scaleLength, instrument.frets)
  const y = (mm: number) => (mm / total) * 400
  const mm = (fret: number) => fretFromNut(instrument.scaleLength, fret)
  return (
    <svg viewBox="-2 -4 34 412" preserveAspectRatio="none" role="img" aria-label={t('neck.strip')}>
      <rect x={6} y={0} width={18} height={400} fill="none" stroke="var(--rule)" />
      <rect
        x={2}
        y={y(mm(from))}
        width={26}
        height={y(mm(to)) - y(mm(from))}
        fill="var(--lamp)"
        opacity={0.28}
        rx={3}
      />
      {Array.from({ length: instrument.frets }, (_, i) => (
        <line
          key={i}
          x1={6}
          x2={24}
          y1={y(mm(i + 1))}
          y2={y(mm(i + 1))}
          stroke="var(--rule)"
          strokeWidth={i + 1 === instrument.bodyJoin ? 2.4 : 1}
        />
      ))}
      {capo > 0 ? <rect x={3} y={y(mm(capo)) - 6} width={24} height={6} rx={3} fill="var(--rail)" /> : null}
      {pressed.map((p) => (
        <circle
          key={`${p.string}.${p.fret}`}
          cx={24 - (p.string - 1) * 3.6}
          cy={y(fingerFromNut(instrument.scaleLength, p.fret + capo))}
          r={3}
          fill="var(--ink)"
        />
      ))}
    </svg>
  )
}

import { pitchAt, type Setup } from '@velvet-porch/core/instrument'
import { useRef, useState, type KeyboardEvent } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import type { NeckView } from './neckView.ts'
import neckCss from './neck.module.css'

interface Props {
  readonly setup: Setup
  readonly view: NeckView
  readonly onHear: (string: number, fret: number) => void
}

/** Every place in the window can be heard: by click, or by arrow keys and Enter (one stop for the Tab key). */
export function NeckPlaces({ setup, view, onHear }: Props) {
  const { t } = useTranslation()
  const names = useNames()
  const group = useRef<SVGGElement>(null)
  const [at, setAt] = useState({ string: 1, fret: 0 })
  const fretted = view.frets.filter((f) => f > view.capo && f > view.top).map((f) => f - view.capo)
  const frets = [0, ...fretted]
  const here = { string: at.string, fret: frets.includes(at.fret) ? at.fret : frets[0]! }
  const go = (string: number, fret: number) => {
    setAt({ string, fret })
    group.current?.querySelector<SVGElement>(`[data-place="${string}.${fret}"]`)?.focus()
  }
  const onKey = (event: KeyboardEvent) => {
    const mirror = setup.player.handedness === 'left' ? -1 : 1
    const row = frets.indexOf(here.fret)
    const moves: Readonly<Record<string, () => void>> = {
      ArrowLeft: () => go(Math.min(Math.max(here.string + mirror, 1), view.strings.length), here.fret),
      ArrowRight: () => go(Math.min(Math.max(here.string - mirror, 1), view.strings.length), here.fret),
      ArrowUp: () => go(here.string, frets[Math.max(row - 1, 0)]!),
      ArrowDown: () => go(here.string, frets[Math.min(row + 1, frets.length - 1)]!),
      Enter: () => onHear(here.string, here.fret),
    }
    const move = moves[event.key]
    if (!move) return
    event.preventDefault()
    move()
  }
  return (
    <g ref={group} onKeyDown={onKey}>
      {view.strings.flatMap((s) =>
        frets.map((f) => {
          const name = names.pitch(pitchAt(setup, { string: s, fret: f }))
          return (
            <circle
              key={`${s}.${f}`}
              {...view.place(s, f)}
              r={12}
              className={neckCss.hit}
              role="button"
              data-place={`${s}.${f}`}
              tabIndex={s === here.string && f === here.fret ? 0 : -1}
              aria-label={t('neck.hear', { string: s, fret: f, name })}
              onClick={() => onHear(s, f)}
              onFocus={() => setAt({ string: s, fret: f })}
            />
          )
        }),
      )}
    </g>
  )
}

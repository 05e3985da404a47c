import { readChordSymbol } from '@velvet-porch/core/music'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import type { Action } from '../../state/actions.ts'
import { useShelf } from '../../state/useShelf.ts'
import { controlsIn } from './controls.ts'

/** One thing that the palette offers. */
export interface Offer {
  readonly id: string
  readonly label: string
  readonly description?: string
  readonly keys?: string | undefined
  readonly run: () => void
}

/** Kinds of what is offered, in the order in which they are listed. */
type GroupName = 'keys' | 'chords' | 'controls' | 'places' | 'tunes' | 'settings'

export interface OfferGroup {
  readonly group: string
  readonly offers: readonly Offer[]
}

/** How far a name is from what is typed: just that, beginning with it, a word of it beginning with it, or in it. */
function distance(label: string, query: string): number {
  const [name, typed] = [label.toLowerCase(), query.trim().toLowerCase()]
  if (typed === '') return 0
  if (name === typed) return 0
  if (name.startsWith(typed)) return 1
  return name.includes(` ${typed}`) ? 2 : 3
}

/** The nearest first; what is equally near stays in its order. */
const byNearness = <T>(items: readonly T[], of: (item: T) => number): T[] =>
  items
    .map((item) => [of(item), item] as const)
    .sort(([a], [b]) => a - b)
    .map(([, item]) => item)

/** Offers of one group that are listed at once. */
const LISTED = 12

/**
 * What the palette offers for what is typed: what can be done here, controls of the page, places, tunes, shapes of a
 * chord, settings. With nothing typed: what can be done here, and the places.
 */
export function useFound(actions: readonly Action[], opened: boolean) {
  const { t } = useTranslation()
  const go = useNavigate()
  const [query, setQuery] = useState('')
  const shelf = useShelf(opened)
  // The page behind stays as it is while the palette lies over it.
  const controls = useMemo(() => {
    const stage = opened ? document.getElementById('stage') : null
    return stage ? controlsIn(stage) : []
  }, [opened])
  const groups = useMemo((): OfferGroup[] => {
    const words = query.toLowerCase().split(/\s+/).filter(Boolean)
    const matches = (text: string) => words.every((w) => text.toLowerCase().includes(w))
    const of = (group: Action['group']) => actions.filter((a) => a.group === group && matches(a.label))
    const acts = of(undefined)
    const named = new Set(acts.map((a) => a.label))
    const typed = words.length === 1 ? query.trim() : ''
    const chord = typed.charAt(0).toUpperCase() + typed.slice(1)
    const isChord = readChordSymbol(chord).kind === 'chord'
    const all: { readonly group: GroupName; readonly offers: readonly Offer[] }[] = [
      { group: 'keys', offers: acts },
      {
        group: 'chords',
        offers: isChord
          ? [
              {
                id: `chord.${chord}`,
                label: t('keys.shapesOf', { chord }),
                run: () => void go(`/shapes?chord=${encodeURIComponent(chord)}`),
              },
            ]
          : [],
      },
      {
        group: 'controls',
        offers:
          words.length === 0
            ? []
            : controls
                .filter((c) => !named.has(c.name) && matches(`${c.name} ${c.within ?? ''}`))
                .map((c) => ({
                  id: `control.${c.name}`,
                  label: c.name,
                  ...(c.within ? { description: t('keys.inside', { where: c.within }) } : {}),
                  run: c.use,
                })),
      },
      { group: 'places', offers: of('places') },
      {
        group: 'tunes',
        offers:
          words.length === 0
            ? []
            : shelf
                .filter((r) => matches(`${r.title} ${r.composer ?? ''}`))
                .map((r) => ({
                  id: `tune.${r.id}`,
                  label: t('keys.tune', { title: r.title }),
                  ...(r.composer ? { description: r.composer } : {}),
                  run: () => void go(`/tunes/${r.id}/arrange`),
                })),
      },
      { group: 'settings', offers: of('settings') },
    ]
    return byNearness(
      all.map((g) => ({ ...g, offers: byNearness(g.offers, (o) => distance(o.label, query)) })),
      (g) => Math.min(...g.offers.map((o) => distance(o.label, query))),
    )
      .filter((g) => g.offers.length > 0)
      .map((g) => ({ group: t(`keys.groups.${g.group}`), offers: g.offers.slice(0, LISTED) }))
  }, [query, actions, controls, shelf, t, go])
  return { query, setQuery, groups }
}

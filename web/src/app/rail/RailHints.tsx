import { Tooltip } from '@mantine/core'
import { useTranslation } from 'react-i18next'
import { useLocation, useParams } from 'react-router'
import { placeOf, REFERENCES, STAGES, type Place } from './places.ts'

/** What each place of the rail is for, beside it, for a pointer that stays on it. */
export function RailHints() {
  const { t } = useTranslation()
  const here = placeOf(useLocation().pathname)
  const inTune = useParams().id !== undefined
  const places: readonly Place[] = ['shelf', ...(inTune ? STAGES : []), ...REFERENCES]
  return places.map((place) => (
    <Tooltip
      key={place}
      target={`[data-place="${place}"]`}
      label={t(`help.${place}`).split('\n').join(' ')}
      multiline
      w={270}
      position="right"
      openDelay={700}
      // Whoever has gone there looks at the page now.
      disabled={place === here}
      events={{ hover: true, focus: false, touch: false }}
    />
  ))
}

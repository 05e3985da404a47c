import { Alert, Button } from '@mantine/core'
import { lengthSign } from './values.ts'
import { useTranslation } from 'react-i18next'
import { WHOLE } from '@velvet-porch/core/music'
import type { EditCommand } from '@velvet-porch/core/edit'
import type { Writing } from './useWriting.ts'
import { say } from '../../texts/say.ts'

/** Says why something was not written, and offers the nearest thing that can be. */
export function RefusalLine({ writing }: { writing: Writing }) {
  const { t } = useTranslation()
  const { refused, dismiss, run } = writing
  if (!refused) return null
  const values = { ...refused.values, room: roomText(refused.values.room) }
  const { offer } = refused
  return (
    <Alert
      color="red"
      mt="xs"
      p="xs"
      data-testid="refusal"
      withCloseButton
      closeButtonLabel={t('write.dismiss')}
      onClose={dismiss}
    >
      {say(t, { code: `editing.${refused.reason}`, values })}{' '}
      {offer ? (
        <Button size="compact-sm" ml="sm" onClick={() => void run(offer)}>
          {t(
            `write.offer.${offerKind(refused.edit, offer)}`,
            offerValues(offer) as { string: number; fret: number; value: string },
          )}
        </Button>
      ) : null}
    </Alert>
  )
}

const roomText = (room: string | number | undefined): string =>
  typeof room === 'number' ? lengthSign(room * WHOLE) : ''

type OfferKind = 'place' | 'shorter' | 'string' | 'other'

function offerKind(edit: EditCommand, offer: EditCommand): OfferKind {
  if (offer.do === 'fret' && edit.do === 'fret') return offer.ticks === edit.ticks ? 'place' : 'shorter'
  if ('ticks' in offer) return 'shorter'
  return offer.do === 'restring' ? 'string' : 'other'
}

const offerValues = (offer: EditCommand): Record<string, string | number> =>
  offer.do === 'fret'
    ? { string: offer.string, fret: offer.fret, value: roomText(offer.ticks / WHOLE) }
    : offer.do === 'restring'
      ? { string: offer.string }
      : 'ticks' in offer
        ? { value: roomText(offer.ticks / WHOLE) }
        : {}

import { Button, Text, Title } from '@mantine/core'
import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core'
import { useTranslation } from 'react-i18next'
import { Link, useParams } from 'react-router'
import { useAsPlayed } from '../arrange/useAsPlayed.ts'
import { useArrangement, useTune } from '../store/useTune.ts'
import { TuneGate } from '../tune/TuneGate.tsx'
import { Lesson } from './Lesson.tsx'

/** The tab taught moment by moment: what each finger does, what is plucked, how it is counted. */
export function TeachStage() {
  const id = useParams().id!
  const opened = useTune(id)
  const doc = useArrangement(id)
  return (
    <TuneGate opened={opened}>
      {(tune) =>
        doc === undefined ? null : doc === null ? (
          <Nothing id={id} />
        ) : (
          <Played key={id} tune={tune} doc={doc} />
        )
      }
    </TuneGate>
  )
}

function Played({ tune, doc }: { tune: TuneDoc; doc: ArrangementDoc }) {
  const { played } = useAsPlayed(tune, doc, false)
  return <Lesson tune={tune} doc={played} />
}

function Nothing({ id }: { id: string }) {
  const { t } = useTranslation()
  return (
    <div className="teach-nothing">
      <Title order={1}>{t('teach.nothing')}</Title>
      <Text my="md">
        <Button component={Link} to={`/tunes/${id}/arrange`}>
          {t('teach.toArrange')}
        </Button>
      </Text>
    </div>
  )
}

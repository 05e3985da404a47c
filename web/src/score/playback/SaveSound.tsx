import { Button, Group, Progress } from '@mantine/core'
import { IconFileMusic } from '@tabler/icons-react'
import { proxy } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { download } from '../../ui/saveAs.ts'
import { Supervised } from '../../workers/supervised.ts'
import type { SoundApi } from '../../workers/sound.worker.ts'
import { player } from './player.ts'

type SoundWorker = Supervised<SoundApi>

/** What is heard as a WAV file: tempo, balance, metronome and marked measures as they are set. */
export function SaveSound({ name }: { name: string }) {
  const { t } = useTranslation()
  const [share, setShare] = useState<number>()
  const [failed, setFailed] = useState(false)
  const worker = useRef<SoundWorker>(undefined)
  const stop = () => {
    worker.current?.end()
    worker.current = undefined
    setShare(undefined)
  }
  useEffect(() => () => worker.current?.end(), [])
  const save = async () => {
    const heard = player.toBeHeard()
    if (!heard) return
    setFailed(false)
    setShare(0)
    const own: SoundWorker = new Supervised<SoundApi>(
      () => new Worker(new URL('../../workers/sound.worker.ts', import.meta.url), { type: 'module' }),
    )
    worker.current = own
    try {
      const bytes = await own.call('wav', heard.score, heard.settings, proxy(setShare))
      download(`${name}.wav`, new Blob([bytes], { type: 'audio/wav' }))
    } catch {
      setFailed(true)
    }
    stop()
  }
  return share === undefined ? (
    <>
      <Button
        size="compact-xs"
        variant="light"
        mt={8}
        leftSection={<IconFileMusic size={14} />}
        onClick={() => void save()}
      >
        {t('play.wav')}
      </Button>
      {failed ? <span role="alert">{t('play.wavFailed')}</span> : null}
    </>
  ) : (
    <Group gap={6} mt={8} wrap="nowrap">
      <Progress value={100 * share} style={{ flex: 1 }} aria-label={t('play.wavWorks')} />
      <Button size="compact-xs" variant="default" onClick={stop}>
        {t('play.wavStop')}
      </Button>
    </Group>
  )
}
